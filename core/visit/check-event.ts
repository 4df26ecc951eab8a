import * as z from '@/core/units/schema';
import { FIRST_INSTANT } from '../units/instant';
import { unkeepable } from '../units/keepable-json';
import { firstProblem, parsed } from '../units/own-words';
import { isZone } from '../units/zoned';
import { EVENT_VERSION, MOST_SEQ, type StoredEvent } from './event';
import { isKind } from './kinds/registry';
import { payloadProblem, uuid } from './payloads';

/** How far ahead of the clock an event may be. */
export const FUTURE_LIMIT_MS = 48 * 3600 * 1000;
/** The largest payload kept for a kind or version this code does not know. */
export const NEWER_PAYLOAD_BYTES = 8192;
/** The largest payload of a known kind: a survey of a hundred bays fits many times over. */
export const PAYLOAD_BYTES = 65_536;

/** Whether a payload takes more than so many bytes of UTF-8, as the storage counts. */
function largerThan(payload: unknown, bytes: number): boolean {
  const text = JSON.stringify(payload);
  // A unit of text is three bytes at most.
  return text.length * 3 > bytes && new TextEncoder().encode(text).length > bytes;
}

/** Most events of one visit: a reading every ten seconds for half a day. What lies beyond could not be shown in reasonable time. */
export const MOST_VISIT_EVENTS = 5_000;

const FIELDS = {
  id: uuid(),
  householdId: uuid(),
  personId: uuid(),
  visitId: uuid(),
  kind: z.string().check(z.regex(/^[a-z][a-z0-9_]{0,31}$/, 'must be a short lower-case word')),
  v: z.int('must be a whole number').check(z.minimum(1), z.maximum(32767)),
  at: z.int('must be a time in UTC milliseconds').check(z.minimum(FIRST_INSTANT, 'is before 1990')),
  precision: z.enum(['ms', 's', 'min', 'day']),
  zone: z.string().check(z.maxLength(64), z.refine(isZone, 'is not a known time zone')),
  deviceId: uuid(),
  life: uuid(),
  // A page does not live for three years.
  mono: z.number().check(z.minimum(0), z.maximum(1e11)),
  awake: z.boolean(),
  seq: z.int().check(z.minimum(1), z.maximum(MOST_SEQ)),
  origin: z.enum(['tap', 'typed', 'imported', 'simulated']),
  role: z.enum(['recorder', 'observer']),
  payload: z.record(z.string(), z.unknown()),
};
const envelope = z.looseObject(FIELDS);
const { payload: _, ...BESIDE } = FIELDS;
const EACH = Object.entries(BESIDE) as [keyof typeof BESIDE, z.ZodMiniType][];
/** What every event has, in the order of canonical JSON. */
export const EVENT_FIELDS = (Object.keys(FIELDS) as (keyof typeof FIELDS)[]).sort();
const hasNames = (value: unknown): boolean => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Whether an event has what every event has, nothing besides, and all of it right: what is as it was in one that was checked, most of it among a device's, is not looked at again. */
const rightAs = (e: Record<string, unknown>, before: StoredEvent): boolean =>
  Object.keys(e).length === EVENT_FIELDS.length &&
  // Its kind's own schema looks into it.
  hasNames(e.payload) &&
  EACH.every(([name, schema]) => e[name] === before[name] || z.safeParse(schema, e[name]).success);

export type EventCheck = { ok: true; event: StoredEvent; newer: boolean } | { ok: false; path: string; reason: string };

/**
 * Checks one event as it comes from outside. Never throws.
 * @param raw any JSON value
 * @param nowMs the receiver's clock, UTC ms: events more than 48 h ahead are refused
 * @param before one that was checked, where there is one: of many by one device each is checked in half the time
 * @returns the event with only envelope fields and payload; `newer` when kind or version is not known here
 *   (kept up to 8 kB of payload and ignored by derivation); or the path and the reason of the refusal
 */
export function checkEvent(raw: unknown, nowMs: number, before: StoredEvent | null = null): EventCheck {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) return { ok: false, path: 'event', reason: 'must hold named fields' };
  const right = before && rightAs(raw as Record<string, unknown>, before) ? (raw as StoredEvent) : null;
  // What is right in a place of its own is of an id, a number or a word of a list: only the payload may be odd.
  const odd = right ? unkeepable({ payload: right.payload }, '') : unkeepable(raw, '');
  if (odd) return { ok: false, ...odd };
  const read = right ? { success: true as const, data: right } : parsed(envelope, raw);
  if (!read.success) return { ok: false, ...firstProblem(read.error, '') };
  const e = read.data;
  if (e.at > nowMs + FUTURE_LIMIT_MS) return { ok: false, path: 'at', reason: 'is more than 48 hours in the future' };
  const event: StoredEvent = {
    id: e.id,
    householdId: e.householdId,
    personId: e.personId,
    visitId: e.visitId,
    kind: e.kind,
    v: e.v,
    at: e.at,
    precision: e.precision,
    zone: e.zone,
    deviceId: e.deviceId,
    life: e.life,
    mono: e.mono,
    awake: e.awake,
    seq: e.seq,
    origin: e.origin,
    role: e.role,
    payload: e.payload,
  };
  const newer = !isKind(e.kind) || e.v > EVENT_VERSION;
  const most = newer ? NEWER_PAYLOAD_BYTES : PAYLOAD_BYTES;
  if (largerThan(e.payload, most)) return { ok: false, path: 'payload', reason: `is larger than ${most / 1024} kB` };
  if (newer || !isKind(e.kind)) return { ok: true, event, newer: true };
  const problem = payloadProblem(e.kind, e.payload);
  if (problem) return { ok: false, ...problem };
  return { ok: true, event, newer: false };
}
