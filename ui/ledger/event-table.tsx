import { Fragment, type ReactNode } from 'react';
import type { DistanceUnit } from '@/core/units/distance';
import { endsOf } from '@/core/units/ends-of';
import { printCount } from '@/core/units/print';
import { printClock, printDate } from '@/core/units/zoned';
import { asideLabel } from '@/core/visit/aside-label';
import { attemptsText } from '@/core/visit/attempt-text';
import { type AttemptChoice, attemptChoices, attemptsBy, attemptsNamed } from '@/core/visit/billed';
import type { CorrectableField } from '@/core/visit/correctable-field';
import type { Visit } from '@/core/visit/derive';
import type { NameOf } from '@/core/visit/kinds/kind';
import { correctableFields, eventDetail, eventLabel } from '@/core/visit/kinds/registry';
import type { Kind } from '@/core/visit/payloads';
import type { FieldValue } from '@/core/visit/set-fields';
import type { Placed } from '@/core/visit/timeline/placed';

/** An event as the correcting of it needs it. */
export type Correctable = {
  id: string;
  kind: Kind;
  label: string;
  at: number;
  payload: Record<string, unknown> /** Of the visit, where the event names some. */;
  attempts?: AttemptChoice[];
};
/** A program that writes down every second makes thousands: what a page can hold, and an eye. */
const MOST = 400;
/** The record itself: every event in order, what was changed since, and the way to correct it. */
export function EventTable({
  visit: v,
  nameOf,
  distance,
  whole,
  correct,
}: {
  visit: Visit;
  nameOf: NameOf;
  distance: DistanceUnit;
  /** Whether all of a very long record is shown. */
  whole: boolean;
  correct: (event: Correctable) => ReactNode;
}) {
  const person = (id: string) => nameOf('person', id) || 'somebody else';
  const named = attemptsBy(v.attempts, v.line);
  const { first, between, last } = endsOf(v.line, whole ? Number.POSITIVE_INFINITY : MOST);
  return (
    <section aria-labelledby="record-head" className="mb-8 mt-6">
      <h2 id="record-head" className="mb-1.5 text-[15px]">
        The record
      </h2>
      <ol>
        {[...first, ...last].map((e, i) => {
          const history = v.history.get(e.id) ?? [];
          return (
            <Fragment key={e.id}>
              {between > 0 && i === first.length ? (
                <li className="border-b border-rule-2 py-2 text-[13px]">
                  {printCount(between, 'more event')} between.{' '}
                  <a href={`/ledger/${v.id}?events=all#record-head`} className="inline-block min-h-6 font-semibold text-shake underline">
                    Show all {v.line.length}
                  </a>
                </li>
              ) : null}
              <li className="flex items-center gap-x-3 border-b border-rule-2 py-1 text-[13px]">
                <span className={`w-[76px] shrink-0 ${e.precision === 'day' ? 'text-ink-2' : 'num'}`}>
                  {e.precision === 'day' ? 'that day' : printClock(e.t, v.zone)}
                </span>
                <div className="flex min-w-0 flex-1 flex-wrap items-center gap-x-3 wrap-anywhere">
                  <span className="font-semibold">
                    {eventLabel(e, nameOf)}{' '}
                    <span className="font-normal text-ink-2">
                      {e.kind === 'power_seen' && e.precision === 'day' ? null : eventDetail(e, nameOf, (ids) => attemptsText(named(ids)), distance)}
                    </span>
                  </span>
                  {photoOf(e) ? (
                    <a href={`/api/v1/photos/${photoOf(e)}`} className="no-print text-shake underline" target="_blank" rel="noreferrer">
                      Picture{takenAt(e)}
                    </a>
                  ) : null}
                  {(e.looks ?? []).map((l) => (
                    <span key={l.eventId} className="text-ink-2">
                      also seen by {person(l.personId)}, {l.differs_s.toFixed(1)} s apart
                    </span>
                  ))}
                  {e.onlySeen ? <span className="text-ink-2">seen by {person(e.personId)} only</span> : null}
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
                </div>
                {correct({
                  id: e.id,
                  kind: e.kind,
                  label: eventLabel(e, nameOf),
                  at: Math.round(e.t),
                  payload: e.payload as Record<string, unknown>,
                  ...(e.kind === 'bill' ? { attempts: attemptChoices(v.attempts, v.line, (id) => nameOf('stall', id)) } : {}),
                })}
              </li>
            </Fragment>
          );
        })}
      </ol>
      {v.line.length === 0 ? <p className="text-[13px]">Nothing stands on the line of this visit.</p> : null}
      {v.aside.length > 0 ? (
        <p className="mt-2 text-[13px] text-ink-2">Kept beside the line: {v.aside.map((e) => `${asideLabel(e)}, ${printClock(e.at, v.zone)}`).join('; ')}.</p>
      ) : null}
      {v.takenBack.length > 0 ? (
        <p className="mt-2 text-[13px] text-ink-2">
          Taken back, kept and not counted: {v.takenBack.map((e) => `${eventLabel(e, nameOf)} ${printClock(e.at, v.zone)}`).join(', ')}.
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

/** Where a picture was taken, when its driver wanted that kept. */
function takenAt(e: Placed): string {
  const at = e.kind === 'receipt' || e.kind === 'fault' || e.kind === 'note' ? e.payload.takenAt : undefined;
  return at ? `, taken at ${at.latitude.toFixed(4)}, ${at.longitude.toFixed(4)}` : '';
}

/** The picture that goes with an event. */
const photoOf = (e: Placed): string | undefined =>
  e.kind === 'receipt' ? e.payload.sha256 : e.kind === 'fault' || e.kind === 'note' ? e.payload.photo : undefined;
