import * as z from '@/core/units/schema';
import { ID_PATTERN, isId, NOT_AN_ID } from '../units/id';
import { ownWords, problemsOf } from '../units/own-words';
import { isZone } from '../units/zoned';
import { MOST_SEQ, type Precision, type StoredEvent } from '../visit/event';
import { instantsOf } from './sheet-times';
import { pointerPart } from './strict-json';
import { WRITTEN_INSTANT, writtenInstant } from './written-instant';

const id = () => z.string().check(z.regex(ID_PATTERN, NOT_AN_ID));
const WHEN = 'must be a date, a time with its offset, or UTC milliseconds';

/**
 * An event as a program sends it. What only a page has may be left out: `deviceId` and `life` are then those of its source, `mono` 0, `awake` false, and `seq` the place
 * among the events of that visit in the request, behind all that is here of it: so what takes back or corrects stands behind what it is of. A request can be sent again as it is.
 */
export const eventIn = z.strictObject({
  id: id(),
  visitId: id(),
  kind: z.string().check(z.maxLength(32)),
  v: z.optional(z.int()),
  // UTC in milliseconds, or a text of ISO 8601: its precision is that of the time.
  at: z.union([z.int(), z.string().check(z.regex(WRITTEN_INSTANT, WHEN))], WHEN),
  precision: z.optional(z.enum(['ms', 's', 'min', 'day'])),
  zone: z.optional(z.string().check(z.maxLength(64), z.refine(isZone, 'is not a known time zone'))),
  deviceId: z.optional(id()),
  life: z.optional(id()),
  mono: z.optional(z.number()),
  awake: z.optional(z.boolean()),
  seq: z.optional(z.int()),
  role: z.optional(z.enum(['recorder', 'observer'])),
  payload: z._default(z.record(z.string(), z.unknown()), {}),
});
export type EventIn = z.infer<typeof eventIn>;

/** Whose events they are, and what they say they come from. */
export type EventSource = { householdId: string; personId: string; zone: string; source: string; deviceId: string };

function timeOf(at: number | string, zone: string): { at: number; precision: Precision } | null {
  if (typeof at === 'number') return { at, precision: 'ms' };
  const found = writtenInstant(at);
  if (!found) return null;
  if (found.at !== null) return { at: found.at, precision: found.precision };
  // A day is its noon at the place.
  const [noon] = instantsOf(found.day, { h: 12, min: 0, s: 0, ms: 0, precision: 'min', offset_min: null }, zone);
  return noon === undefined ? null : { at: noon, precision: 'day' };
}

/** What is here of visits that a request speaks of. `seqs`: of its own events that are here, by their ids. `last`: of the others the greatest, by their visit. */
export type KnownSeqs = { seqs: ReadonlyMap<string, number>; last: ReadonlyMap<string, number> };

/** The texts that stand as ids of events and of their visits in a request, whatever else does. */
export function idsIn(list: readonly unknown[]): { events: string[]; visits: string[] } {
  const ids = (name: 'id' | 'visitId') => [...new Set(list.flatMap((raw) => ((raw as Record<string, unknown> | null)?.[name] ?? []) as string).filter(isId))];
  return { events: ids('id'), visits: ids('visitId') };
}

/** Events of one request as they are recorded, or what is wrong with each, `path` its pointer without the first stroke. Nothing else of an event is judged here. */
export function eventsFrom(
  list: readonly unknown[],
  of: EventSource,
  known: KnownSeqs,
): ({ ok: true; event: StoredEvent } | { ok: false; id: string; path: string; reason: string })[] {
  const seqs = new Map<string, number>();
  // One that stands here twice is the same event, in the same place.
  const placed = new Map<string, number>();
  return list.map((raw) => {
    const named = typeof raw === 'object' && raw !== null ? (raw as { id?: unknown }).id : undefined;
    const no = (path: string, reason: string) => ({ ok: false as const, id: typeof named === 'string' ? named : '', path, reason });
    const parsed = eventIn.safeParse(raw, { error: ownWords });
    if (!parsed.success) {
      const [first] = problemsOf(parsed.error);
      return no(
        (first?.path ?? [])
          .map((p) => pointerPart(String(p)))
          .join('')
          .slice(1),
        first?.reason ?? 'is not understood',
      );
    }
    const e = parsed.data;
    const zone = e.zone ?? of.zone;
    const time = timeOf(e.at, zone);
    if (!time) return no('at', 'is no time that there is');
    const which = `${e.visitId} ${e.id}`;
    const seq = placed.get(which) ?? (seqs.get(e.visitId) ?? 0) + 1;
    placed.set(which, seq);
    seqs.set(e.visitId, Math.max(seq, seqs.get(e.visitId) ?? 0));
    const deviceId = e.deviceId ?? of.deviceId;
    const event: StoredEvent = {
      id: e.id,
      householdId: of.householdId,
      personId: of.personId,
      visitId: e.visitId,
      kind: e.kind,
      v: e.v ?? 1,
      at: time.at,
      precision: e.precision ?? time.precision,
      zone,
      deviceId,
      life: e.life ?? deviceId,
      mono: e.mono ?? 0,
      awake: e.awake ?? false,
      seq: e.seq ?? known.seqs.get(e.id) ?? Math.min(MOST_SEQ, (known.last.get(e.visitId) ?? 0) + seq),
      origin: 'imported',
      role: e.role ?? 'recorder',
      payload: { source: of.source, ...e.payload },
    };
    return { ok: true, event };
  });
}
