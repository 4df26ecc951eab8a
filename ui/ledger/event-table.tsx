import type { ReactNode } from 'react';
import { printClock, printDate } from '@/core/units/zoned';
import type { Visit } from '@/core/visit/derive';
import { eventLabel } from '@/core/visit/event-label';
import type { Placed } from '@/core/visit/order';

/** An event as the correcting of it needs it. */
export type Correctable = { id: string; label: string; at: number; figures: { field: string; label: string; value: string; decimal: boolean }[] };

/** Figures of a kind that can be corrected, with their bounds as the person sees them. */
const FIGURES: Record<string, { field: string; label: string; decimal: boolean }[]> = {
  reading: [
    { field: 'socPct', label: 'Battery, %', decimal: false },
    { field: 'kW', label: 'Power, kW', decimal: false },
    { field: 'kWh', label: 'Delivered, kWh', decimal: true },
    { field: 'cost', label: 'Cost', decimal: true },
  ],
  bill: [
    { field: 'amount', label: 'Charged', decimal: true },
    { field: 'kWh', label: 'kWh on the bill', decimal: true },
  ],
};

/** The record itself: every event in order, what was changed since, and the way to correct it. */
export function EventTable({
  visit: v,
  people,
  stallNames,
  correct,
}: {
  visit: Visit;
  people: Record<string, string>;
  stallNames: Record<string, string>;
  correct: (event: Correctable) => ReactNode;
}) {
  const person = (id: string) => people[id.replaceAll('-', '')] ?? 'somebody else';
  return (
    <section aria-labelledby="record-head" className="mb-8 mt-6">
      <h2 id="record-head" className="mb-1.5 text-[15px]">
        The record
      </h2>
      <ol>
        {v.line.map((e) => {
          const history = v.history.get(e.id) ?? [];
          return (
            <li key={e.id} className="flex flex-wrap items-center gap-x-3 border-b border-rule-2 py-1 text-[13px]">
              <span className="num w-[76px] shrink-0">{printClock(e.t, v.zone)}</span>
              <span className="min-w-[120px] grow font-semibold">
                {eventLabel(e, (id) => stallNames[id] ?? '')} <span className="font-normal text-ink-2">{detail(e)}</span>
              </span>
              {e.secondObservation ? (
                <span className="text-ink-2">
                  also seen by {person(e.secondObservation.personId)}, {e.secondObservation.differs_s.toFixed(1)} s apart
                </span>
              ) : null}
              {history.length > 0 ? (
                <span className="text-paint-ink">
                  corrected:{' '}
                  {history
                    .map(
                      (h) =>
                        `${h.field === 'at' ? `time set to ${printClock(Number(h.value), v.zone)}` : `${h.field} set to ${h.value ?? 'not read'}`} by ${person(h.personId)}, ${printDate(h.madeAt, v.zone)}`,
                    )
                    .join('; ')}
                </span>
              ) : null}
              {correct({
                id: e.id,
                label: eventLabel(e, (id) => stallNames[id] ?? ''),
                at: e.at,
                figures: (FIGURES[e.kind] ?? []).map((f) => ({ ...f, value: String((e.payload as Record<string, unknown>)[f.field] ?? '') })),
              })}
            </li>
          );
        })}
      </ol>
      {v.takenBack.length > 0 ? (
        <p className="mt-2 text-[13px] text-ink-2">
          Taken back, kept and not counted: {v.takenBack.map((e) => `${eventLabel(e, (id) => stallNames[id] ?? '')} ${printClock(e.at, v.zone)}`).join(', ')}.
        </p>
      ) : null}
    </section>
  );
}

function detail(e: Placed): string {
  switch (e.kind) {
    case 'reading':
      return [
        e.payload.socPct === undefined ? null : `${e.payload.socPct} %`,
        e.payload.kW === undefined ? null : `${e.payload.kW} kW`,
        e.payload.kWh === undefined ? null : `${e.payload.kWh} kWh`,
      ]
        .filter(Boolean)
        .join(', ');
    case 'bill':
      return `${e.payload.amount} ${e.payload.currency}`;
    case 'note':
      return e.payload.text;
    case 'power_seen':
      return `${e.payload.mark} on the ${e.payload.screen}’s screen`;
    case 'stop_asked':
      return `by ${e.payload.by}`;
    default:
      return '';
  }
}
