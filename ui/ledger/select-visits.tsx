'use client';
import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import { printCount } from '@/core/units/print';
import { LeaveOut, useMarking } from './marking';

type Selecting = { on: boolean; chosen: ReadonlySet<string>; toggle: (id: string) => void };
const Context = createContext<Selecting>({ on: false, chosen: new Set(), toggle: () => {} });

/** A list of visits of which several can be chosen, and what can be said of them at once. @param ids those on the page that can be chosen */
export function SelectVisits({ ids, may, children }: { ids: readonly string[]; may: boolean; children: ReactNode }) {
  const [on, setOn] = useState(false);
  const [all, setAll] = useState<ReadonlySet<string>>(new Set());
  // What left the page with a filter is no longer chosen.
  const chosen = useMemo(() => new Set(ids.filter((id) => all.has(id))), [ids, all]);
  const [asked, setAsked] = useState(false);
  const { mark, busy, problem } = useMarking(() => {
    setAll(new Set());
    setAsked(false);
  });
  const value = useMemo(
    () => ({ on, chosen, toggle: (id: string) => setAll((before) => new Set(before.has(id) ? [...before].filter((x) => x !== id) : [...before, id])) }),
    [on, chosen],
  );
  const none = chosen.size === 0;
  return (
    <Context.Provider value={value}>
      {may && ids.length > 0 ? (
        <section aria-label="Several visits" className="no-print flex flex-wrap items-center gap-2 border-b border-rule px-4 py-1.5 text-[13px]">
          <button type="button" className="min-h-6 font-semibold text-shake underline" aria-expanded={on} onClick={() => setOn(!on)}>
            {on ? 'Done choosing' : 'Choose several'}
          </button>
          {on ? (
            <>
              <span role="status" className="grow text-ink-2">
                {none ? 'none chosen' : `${printCount(chosen.size, 'visit')} chosen`}
              </span>
              <button type="button" className="min-h-6 font-semibold text-shake underline" onClick={() => setAll(none ? new Set(ids) : new Set())}>
                {none ? 'All on this page' : 'None'}
              </button>
            </>
          ) : null}
          {on && !none ? (
            <div className="flex w-full flex-wrap gap-2">
              <button type="button" className="plate" disabled={busy} onClick={() => void mark([...chosen], 'business')}>
                Mark as business
              </button>
              <button type="button" className="plate" disabled={busy} onClick={() => void mark([...chosen], 'private')}>
                Mark as private
              </button>
              <LeaveOut busy={busy} onReason={(reason) => void mark([...chosen], 'left_out', reason)} />
              {asked ? (
                <div role="alert" className="w-full border-l-4 border-fault bg-fault-card px-3 py-2">
                  <p className="font-semibold">
                    Withdraw {printCount(chosen.size, 'visit')}? They stand in no list and no count any more; each can be restored on its page.
                  </p>
                  <div className="mt-2 flex flex-wrap gap-2">
                    <button type="button" className="plate !min-h-[44px]" onClick={() => setAsked(false)}>
                      No
                    </button>
                    <button type="button" className="plate plate-bad !min-h-[44px]" disabled={busy} onClick={() => void mark([...chosen], 'withdraw')}>
                      Withdraw them
                    </button>
                  </div>
                </div>
              ) : (
                <button type="button" className="plate" disabled={busy} onClick={() => setAsked(true)}>
                  Withdraw
                </button>
              )}
            </div>
          ) : null}
          {problem ? (
            <p role="alert" className="w-full font-semibold text-fault">
              {problem}
            </p>
          ) : null}
        </section>
      ) : null}
      {children}
    </Context.Provider>
  );
}

/** The box of one visit, while several are being chosen. @param what the visit is called */
export function SelectBox({ id, what }: { id: string; what: string }) {
  const { on, chosen, toggle } = useContext(Context);
  if (!on) return null;
  return (
    <label className="grid w-[44px] shrink-0 place-items-center border-b border-rule-2">
      <input type="checkbox" className="size-5" aria-label={`Choose ${what}`} checked={chosen.has(id)} onChange={() => toggle(id)} />
    </label>
  );
}
