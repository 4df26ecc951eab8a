import type { MeansKind } from '../records/means-kind';
import type { Precision } from './event';
import type { Kind, Payload } from './payloads';

/** What somebody still knows of a visit: from memory, a receipt, or a stopwatch. Times are UTC ms of whole minutes. */
export type TypedVisit = {
  siteId: string;
  stallId: string | null;
  carId: string | null;
  /** Who drove, where it was somebody else than who types. */
  drivenBy: string | null;
  /** Noon of the local day, UTC ms: where events without a time stand. */
  day: number;
  pulledIn: number | null;
  plugged: number | null;
  powerSeen: number | null;
  stopped: number | null;
  pulledOut: number | null;
  meansKind: MeansKind | null;
  meansId: string | null;
  /** Handshake by a stopwatch or from memory, seconds. */
  handshake_s: number | null;
  socFrom: number | null;
  socTo: number | null;
  kWh: string | null;
  /** How long the charge took, by its receipt or the last screen. */
  minutes: number | null;
  amount: string | null;
  currency: string;
  /** A fault of the list, and whether the visit ended without a charge. */
  fault: { code: string; side: Payload<'fault'>['side'] } | null;
  charged: boolean;
  reason: Payload<'pulled_out'>['reason'];
  note: string | null;
};
export type TypedEvent = { [K in Kind]: { kind: K; payload: Payload<K>; at: number; precision: Precision } }[Kind];

/** True when somebody knows more of the start than a receipt tells: only then an attempt is recorded. */
const knowsAttempt = (v: TypedVisit): boolean =>
  [v.plugged, v.powerSeen, v.stopped, v.handshake_s, v.fault].some((x) => x !== null) || (v.meansKind !== null && v.amount === null);

/**
 * The events of a visit typed in afterwards, with only what is known: a time that is known has a precision of a
 * minute, everything else stands in its order within the day and has no durations. From a receipt alone nothing is made up:
 * no attempt, no screen, no proof of power.
 */
export function typedVisit(v: TypedVisit): TypedEvent[] {
  const out: TypedEvent[] = [];
  const known = [v.pulledIn, v.plugged, v.powerSeen, v.stopped, v.pulledOut].filter((t) => t !== null);
  // Without any time the whole visit is a day; with some, what lacks one stands right after what came before it.
  let at = known.length > 0 ? Math.min(...known) : v.day;
  const add = <K extends Kind>(kind: K, payload: Payload<K>, t: number | null) => {
    if (t !== null) at = Math.max(at, t);
    out.push({ kind, payload, at: at + out.length, precision: t === null ? 'day' : 'min' } as TypedEvent);
  };
  const means = v.meansKind ? { meansKind: v.meansKind, ...(v.meansId ? { meansId: v.meansId } : {}) } : null;
  const attempt = v.charged && knowsAttempt(v);
  add(
    'pulled_in',
    {
      siteId: v.siteId,
      ...(v.carId ? { carId: v.carId } : {}),
      ...(v.drivenBy ? { drivenBy: v.drivenBy } : {}),
      ...(v.socFrom === null ? {} : { socPct: v.socFrom }),
    },
    v.pulledIn,
  );
  if (v.stallId) add('stall_chosen', { stallId: v.stallId }, null);
  if (v.fault && !v.charged) add('fault', v.fault, null);
  if (attempt) {
    if (v.plugged !== null) add('plugged', {}, v.plugged);
    if (means) add('means_shown', means, null);
    if (v.powerSeen !== null) add('power_seen', { screen: 'stall', mark: 'kW' }, v.powerSeen);
    else if (v.handshake_s !== null || v.kWh === null) add('power_seen', { screen: 'stall', mark: 'kW', late: true }, null);
    if (v.fault) add('fault', v.fault, null);
  }
  // Somebody says that it charged, and nothing else tells of it.
  if (v.charged && !attempt && v.kWh === null) add('power_seen', { screen: 'stall', mark: 'kW', late: true }, null);
  // kWh without a bill come from a screen; with one they are the bill's.
  const read = { ...(v.socTo === null ? {} : { socPct: v.socTo }), ...(v.kWh === null || v.amount !== null ? {} : { kWh: v.kWh }) };
  if (v.charged && Object.keys(read).length > 0) add('reading', { screen: read.kWh === undefined ? 'car' : 'stall', ...read }, v.stopped);
  if (attempt && v.stopped !== null) add('stop_asked', {}, v.stopped);
  add('pulled_out', { reason: v.reason }, v.pulledOut);
  if (v.handshake_s !== null)
    add('figure_given', { figure: 'handshake', seconds: v.handshake_s, plusMinus_s: 2, startMark: 'plug or card', endMark: 'kW' }, null);
  // With a bill they are the bill's; with none nobody says more of them than that somebody knows them.
  if (v.minutes !== null && v.amount === null && v.charged)
    add('figure_given', { figure: 'charging', seconds: v.minutes * 60, plusMinus_s: 30, startMark: 'charge begun', endMark: 'charge ended' }, null);
  if (v.amount !== null)
    add(
      'bill',
      {
        sessions: [],
        amount: v.amount,
        currency: v.currency,
        ...(v.kWh === null ? {} : { kWh: v.kWh }),
        ...(v.minutes === null ? {} : { minutes: v.minutes }),
        ...(means && !attempt ? means : {}),
        state: 'charged',
      },
      null,
    );
  if (v.note) add('note', { text: v.note }, null);
  return out;
}
