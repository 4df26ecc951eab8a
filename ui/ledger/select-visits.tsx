'use client';
import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import { printCount } from '@/core/units/print';
import { LeaveOut, useMarking } from './marking';

type Selecting = {
  ids: readonly string[];
  on: boolean;
  setOn: (on: boolean) => void;
  chosen: ReadonlySet<string>;
  choose: (ids: Iterable<string>) => void;
  toggle: (id: string) => void;
};
const Context = createContext<Selecting>({ ids: [], on: false, setOn: () => {}, chosen: new Set(), choose: () => {}, toggle: () => {} });
const link = 'inline-flex min-h-6 items-center text-sm font-semibold text-shake underline';

/** A list of visits of which several can be chosen. @param ids those on the page that can be chosen; none for who may not mark them */
export function SelectVisits({ ids, children }: { ids: readonly string[]; children: ReactNode }) {
  const [on, setOn] = useState(false);
  const [all, setAll] = useState<ReadonlySet<string>>(new Set());
  const value = useMemo(
    (): Selecting => ({
      ids,
      on,
      setOn,
      // What left the page with a filter is no longer chosen.
      chosen: new Set(ids.filter((id) => all.has(id))),
      choose: (chosen) => setAll(new Set(chosen)),
      toggle: (id) => setAll((before) => new Set(before.has(id) ? [...before].filter((x) => x !== id) : [...before, id])),
    }),
    [ids, on, all],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

/** Begins and ends the choosing. */
export function SelectToggle() {
  const { ids, on, setOn } = useContext(Context);
  if (ids.length === 0) return null;
  return (
    <button type="button" className={`no-print ${link}`} aria-expanded={on} onClick={() => setOn(!on)}>
      {on ? 'Done choosing' : 'Choose several'}
    </button>
  );
}

/** What can be said of the visits that are chosen. */
export function SelectBar() {
  const { ids, on, chosen, choose } = useContext(Context);
  const [asked, setAsked] = useState(false);
  const { mark, busy, problem } = useMarking(() => {
    choose([]);
    setAsked(false);
  });
  if (!on || ids.length === 0) return null;
  const none = chosen.size === 0;
  return (
    <section aria-label="Several visits" className="no-print flex w-full flex-wrap items-center gap-2 text-[13px]">
      <span role="status" className="grow text-ink-2">
        {none ? 'none chosen' : `${printCount(chosen.size, 'visit')} chosen`}
      </span>
      <button type="button" className={link} onClick={() => choose(none ? ids : [])}>
        {none ? 'All on this page' : 'None'}
      </button>
      {none ? null : (
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
      )}
      {problem ? (
        <p role="alert" className="w-full font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </section>
  );
}

/** The row of a visit: while several are being chosen it has a box, and a press on it chooses. @param what the visit is called */
export function SelectRow({ id, what, children }: { id: string; what: string; children: ReactNode }) {
  const { ids, on, chosen, toggle } = useContext(Context);
  const choosing = on && ids.includes(id);
  return (
    <li
      className="flex"
      onClickCapture={(e) => {
        if (!choosing || e.target instanceof HTMLInputElement || (e.target as Element).closest('label')) return;
        e.preventDefault();
        e.stopPropagation();
        toggle(id);
      }}
    >
      {choosing ? (
        <label className="grid w-[44px] shrink-0 place-items-center border-b border-rule-2">
          <input type="checkbox" className="size-6" aria-label={`Choose ${what}`} checked={chosen.has(id)} onChange={() => toggle(id)} />
        </label>
      ) : null}
      {children}
    </li>
  );
}
