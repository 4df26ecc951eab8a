import type { ReactNode } from 'react';
import { printDuration } from '@/core/units/print';
import { printClock, printDate } from '@/core/units/zoned';
import { attemptsText } from '@/core/visit/attempt-text';
import { type AttemptChoice, attemptChoices, attemptsNamed } from '@/core/visit/billed';
import { type CorrectableField, correctableFields } from '@/core/visit/correctable-fields';
import type { Visit } from '@/core/visit/derive';
import { asideLabel, BAY_LABELS, eventLabel, GONE_LABELS, HELP_RESULTS, LEAVE_LABELS } from '@/core/visit/event-label';
import type { Kind } from '@/core/visit/kinds';
import type { Placed } from '@/core/visit/order';
import type { FieldValue } from '@/core/visit/set-fields';

/** An event as the correcting of it needs it. */
export type Correctable = {
  id: string;
  kind: Kind;
  label: string;
  at: number;
  payload: Record<string, unknown> /** Of the visit, where the event names some. */;
  attempts?: AttemptChoice[];
};
/** Names of what an event refers to by its id. */
export type NameOf = (type: 'site' | 'stall' | 'car' | 'adapter' | 'means', id: string) => string;

/** The record itself: every event in order, what was changed since, and the way to correct it. */
export function EventTable({
  visit: v,
  people,
  nameOf,
  correct,
}: {
  visit: Visit;
  people: Record<string, string>;
  nameOf: NameOf;
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
                {eventLabel(e, (id) => nameOf('stall', id))} <span className="font-normal text-ink-2">{detail(e, v, nameOf)}</span>
              </span>
              {photoOf(e) ? (
                <a href={`/api/v1/photos/${photoOf(e)}`} className="no-print text-shake underline" target="_blank" rel="noreferrer">
                  Picture{takenAt(e)}
                </a>
              ) : null}
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
                        `${h.field === 'at' ? `time set to ${printClock(Number(h.value), v.zone)}` : `${fieldLabel(e, h.field, nameOf)} set to ${valueText(e, h.field, h.value, v, nameOf)}`} by ${person(h.personId)}, ${printDate(h.madeAt, v.zone)}`,
                    )
                    .join('; ')}
                </span>
              ) : null}
              {correct({
                id: e.id,
                kind: e.kind,
                label: eventLabel(e, (id) => nameOf('stall', id)),
                at: e.at,
                payload: e.payload as Record<string, unknown>,
                ...(e.kind === 'bill' ? { attempts: attemptChoices(v.attempts, v.line, (id) => nameOf('stall', id)) } : {}),
              })}
            </li>
          );
        })}
      </ol>
      {v.line.length === 0 ? <p className="text-[13px]">Nothing stands on the line of this visit.</p> : null}
      {v.aside.length > 0 ? (
        <p className="mt-2 text-[13px] text-ink-2">Kept beside the line: {v.aside.map((e) => `${asideLabel(e)}, ${printClock(e.at, v.zone)}`).join('; ')}.</p>
      ) : null}
      {v.takenBack.length > 0 ? (
        <p className="mt-2 text-[13px] text-ink-2">
          Taken back, kept and not counted: {v.takenBack.map((e) => `${eventLabel(e, (id) => nameOf('stall', id))} ${printClock(e.at, v.zone)}`).join(', ')}.
        </p>
      ) : null}
    </section>
  );
}

const fieldOf = (e: Placed, field: string): CorrectableField | undefined =>
  correctableFields(e.kind, e.payload as Record<string, unknown>).find((f) => f.field === field);
function fieldLabel(e: Placed, field: string, nameOf: NameOf): string {
  const f = fieldOf(e, field);
  return f?.stallId ? `stall ${nameOf('stall', f.stallId)}${f.is === 'number' ? ` ${f.label}` : ''}` : (f?.label.toLowerCase() ?? field);
}
function valueText(e: Placed, field: string, value: FieldValue, v: Visit, nameOf: NameOf): string {
  const f = fieldOf(e, field);
  if (value === null) return 'not read';
  if (f?.is === 'ref') return nameOf(f.type, String(value)) || 'something not known here';
  if (f?.is === 'choice') return f.options.find(([v]) => v === value)?.[1] ?? String(value);
  if (f?.is === 'attempts') return attemptsText(attemptsNamed(Array.isArray(value) ? value : [], v.attempts, v.line)) ?? 'the whole visit';
  if (f?.is === 'yes_no') return value === true ? 'yes' : 'no';
  return field === 'photo' ? 'a picture' : String(value);
}

/** What an event holds, in a line. */
function detail(e: Placed, v: Visit, nameOf: NameOf): string {
  const joined = (...parts: (string | null | undefined)[]) => parts.filter(Boolean).join(', ');
  const unit = (value: number | string | undefined, text: string) => (value === undefined ? null : `${value} ${text}`);
  switch (e.kind) {
    case 'pulled_in': {
      const { seen, socPct, odometerKm, airC, preconditioned } = e.payload;
      return joined(
        seen?.free === undefined ? null : `${seen.free}${seen.total === undefined ? '' : ` of ${seen.total}`} free`,
        unit(seen?.outOfOrder, 'out of order'),
        unit(socPct, '%'),
        unit(odometerKm, 'km'),
        unit(airC, '°C'),
        preconditioned ? 'battery preconditioned' : null,
      );
    }
    case 'survey':
      return e.payload.stalls
        .filter((s) => s.state !== 'not_looked')
        .map((s) => `${nameOf('stall', s.stallId)} ${BAY_LABELS[s.state].toLowerCase()}${s.state === 'derated' && s.kW !== undefined ? ` to ${s.kW} kW` : ''}`)
        .join(', ');
    case 'reading':
      return joined(
        unit(e.payload.socPct, '%'),
        unit(e.payload.kW, 'kW'),
        unit(e.payload.kWh, 'kWh'),
        unit(e.payload.V, 'V'),
        unit(e.payload.A, 'A'),
        unit(e.payload.batteryC, '°C battery'),
        `${e.payload.screen}’s screen`,
      );
    case 'bill':
      return joined(
        `${e.payload.amount} ${e.payload.currency}`,
        unit(e.payload.kWh, 'kWh'),
        attemptsText(attemptsNamed(e.payload.sessions, v.attempts, v.line)),
        e.payload.state === 'charged' ? null : e.payload.state,
        e.payload.payee,
        e.payload.ref,
      );
    case 'note':
      return e.payload.text;
    case 'fault':
      return joined(`${e.payload.side}’s side`, e.payload.text);
    case 'adapter_fitted':
      return e.payload.adapterId ? nameOf('adapter', e.payload.adapterId) : '';
    case 'means_shown':
    case 'means_accepted':
    case 'means_refused':
      return joined(e.payload.meansId ? nameOf('means', e.payload.meansId) : null, unit(e.payload.holdAmount, `${e.payload.currency ?? ''} held`));
    case 'stall_chosen':
    case 'plugged':
      return e.payload.connectorId ?? '';
    case 'price_shown':
      return joined(e.payload.text, e.payload.where.toLowerCase(), e.payload.taxIn === undefined ? null : e.payload.taxIn ? 'tax in' : 'tax on top');
    case 'first_act':
      return e.payload.what;
    case 'claimed':
      return `by ${e.payload.by}`;
    case 'power_seen':
      return `${e.payload.mark} on the ${e.payload.screen}’s screen`;
    case 'stop_asked':
      return `by ${e.payload.by}`;
    case 'power_gone':
      return e.payload.why ? GONE_LABELS[e.payload.why] : '';
    case 'stuck':
      return `at the ${e.payload.end}`;
    case 'help_ended':
      return e.payload.result ? HELP_RESULTS[e.payload.result].toLowerCase() : '';
    case 'pulled_out':
      return LEAVE_LABELS[e.payload.reason].toLowerCase();
    case 'rating':
      return e.payload.stars === undefined ? '' : `${e.payload.stars} of 5`;
    case 'figure_given':
      return `${e.payload.figure}, ${printDuration(e.payload.seconds)} ± ${e.payload.plusMinus_s ?? 2} s`;
    default:
      return '';
  }
}

/** Where a picture was taken, when its driver wanted that kept. */
function takenAt(e: Placed): string {
  const at = e.kind === 'receipt' || e.kind === 'fault' || e.kind === 'note' ? e.payload.takenAt : undefined;
  return at ? `, taken at ${at.latitude.toFixed(4)}, ${at.longitude.toFixed(4)}` : '';
}

/** The picture that goes with an event. */
const photoOf = (e: Placed): string | undefined =>
  e.kind === 'receipt' ? e.payload.sha256 : e.kind === 'fault' || e.kind === 'note' ? e.payload.photo : undefined;
