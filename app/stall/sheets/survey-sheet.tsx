'use client';
import { useState } from 'react';
import { byPost } from '@/core/records/stall-plate';
import { countBays } from '@/core/visit/bays';
import { BAY_LABELS } from '@/core/visit/kinds/survey';
import type { Payload } from '@/core/visit/payloads';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { OneOf } from '@/ui/forms/one-of';
import { Sheet } from '@/ui/pads/sheet';
import { Milestone } from '@/ui/road/milestone';
import { ForDrivers } from '@/ui/road/role';
import type { Draft, Records } from '../stall-state';

type Bay = Payload<'survey'>['stalls'][number]['state'];
const STATES = Object.keys(BAY_LABELS) as Bay[];

/** The figure that was typed, as kW of a bay; nothing where none was. */
const readKW = (text: string | undefined): { kW?: number } => (text?.trim() && !badKW(text) ? { kW: Number(text.replace(',', '.')) } : {});
function badKW(text: string | undefined): boolean {
  if (!text?.trim()) return false;
  const kW = Number(text.replace(',', '.'));
  return !(kW >= 1 && kW <= 4000);
}

/** The bays as they stand on arrival: press a bay until it says what you see. What was not looked at is said so. */
export function SurveySheet({
  records,
  siteId,
  openedAt,
  onClose,
  onAct,
  onStalls,
}: {
  records: Records;
  siteId: string | null;
  openedAt: number;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
  /** What was seen of the stalls themselves. */
  onStalls: (bays: Payload<'survey'>['stalls']) => void;
}) {
  const stalls = records.stall.filter((s) => s.fields.siteId === siteId).sort(byPost);
  const [seen, setSeen] = useState<Record<string, Bay>>({});
  const [kW, setKW] = useState<Record<string, string>>({});
  const [at, setAt] = useState<string | null>(stalls[0]?.id ?? null);
  const stateOf = (id: string): Bay => seen[id] ?? 'not_looked';
  const bays = countBays(stalls.map((s) => ({ state: stateOf(s.id) })));
  const set = (state: Bay) => {
    if (at === null) return;
    setSeen({ ...seen, [at]: state });
    // To how many kW is asked at the same bay.
    if (state === 'derated') return;
    // On to the next bay that was not looked at.
    const after = stalls.findIndex((s) => s.id === at) + 1;
    const next = [...stalls.slice(after), ...stalls.slice(0, after)].find((s) => s.id !== at && stateOf(s.id) === 'not_looked');
    setAt(next?.id ?? at);
  };
  return (
    <Sheet title="Bays" onClose={onClose} hint={`${bays.free} free, ${bays.taken} taken, ${bays.outOfOrder} out of order.`}>
      {stalls.length === 0 ? <p className="text-[15px]">No stall of this site is known yet. The counts can be typed under Figures on arrival.</p> : null}
      <OneOf
        label="Bay"
        headed={false}
        value={at}
        choices={stalls.map((s) => {
          const state = BAY_LABELS[stateOf(s.id)];
          const shown = (
            <>
              <Milestone text={s.fields.name} />
              <span className="mt-1 text-[12px]">{state}</span>
            </>
          );
          return [s.id, shown, `Stall ${s.fields.name}: ${state}`] as const;
        })}
        onChoose={setAt}
        look={(is) => `grid w-full justify-items-center rounded-lg border-4 bg-asphalt px-1 pb-1.5 pt-2 text-line ${is ? 'border-paint' : 'border-asphalt'}`}
        row="grid grid-cols-4 gap-2"
      />
      {at !== null ? (
        <fieldset className="mt-3">
          <legend className="mb-1.5 text-[15px] font-bold">Stall {stalls.find((s) => s.id === at)?.fields.name} is</legend>
          <div className="grid grid-cols-2 gap-2">
            {STATES.map((state) => (
              <button key={state} type="button" className="plate !min-h-[48px]" onClick={() => set(state)}>
                {BAY_LABELS[state]}
              </button>
            ))}
          </div>
          {stateOf(at) === 'derated' ? (
            <div className="mt-3">
              <FormField id="derated-kW" label="Derated to, kW" error={badKW(kW[at]) ? 'A figure between 1 and 4000' : undefined}>
                <input
                  {...fieldState('derated-kW', badKW(kW[at]) ? 'bad' : undefined)}
                  inputMode="decimal"
                  autoComplete="off"
                  value={kW[at] ?? ''}
                  onChange={(e) => setKW({ ...kW, [at]: e.target.value })}
                />
              </FormField>
            </div>
          ) : null}
        </fieldset>
      ) : null}
      <ForDrivers>
        <p className="mt-3 text-[13px] text-ink-2">Dark, closed and derated bays are noted with the stalls, as seen today.</p>
      </ForDrivers>
      <button
        type="button"
        className="plate plate-next mt-2 !min-h-[56px] w-full"
        disabled={Object.keys(seen).length === 0 || Object.values(kW).some(badKW)}
        onClick={() => {
          const bays = stalls.map((s) => ({ stallId: s.id, state: stateOf(s.id), ...(stateOf(s.id) === 'derated' ? readKW(kW[s.id]) : {}) }));
          onStalls(bays);
          onAct(openedAt, { kind: 'survey', payload: { stalls: bays } });
        }}
      >
        Record the bays
      </button>
    </Sheet>
  );
}
