import type { Kind, Payload } from './payloads';

/** How well the time of an event is known. `day` gives order only, no durations. */
export type Precision = 'ms' | 's' | 'min' | 'day';
export type Origin = 'tap' | 'typed' | 'imported' | 'simulated';
export type Role = 'recorder' | 'observer';

/** What every event carries, whatever its kind. Ids are UUIDs in lower case; `at` is UTC in ms. */
export type Envelope = {
  id: string;
  householdId: string;
  personId: string;
  visitId: string;
  v: number;
  at: number;
  precision: Precision;
  /** IANA zone of the site, else of the device. */
  zone: string;
  deviceId: string;
  /** One page life: `mono` counts only within it. */
  life: string;
  /** `performance.now()` at the touch, ms. */
  mono: number;
  /** The page was never hidden since the device's previous event. */
  awake: boolean;
  /** 1 + the greatest seq the device knew for this visit. */
  seq: number;
  origin: Origin;
  role: Role;
};

/** An event of a kind this version knows, its payload typed by the kind. */
export type EventOf<K extends Kind> = Envelope & Heard & { kind: K; payload: Payload<K> };
export type VisitEvent = { [K in Kind]: EventOf<K> }[Kind];

/** Any event as kept: its kind may come from a newer version. */
export type StoredEvent = Envelope & Heard & { kind: string; payload: Record<string, unknown> };

/** What the server adds for the derivation; no part of the event, and of no hash. */
export type Heard = {
  /** The server's clock when the event came less the sender's when it went, ms: says how the device's clock stands. */
  heard_ms?: number;
};

/** The payload version this code writes and understands. */
export const EVENT_VERSION = 1;

/**
 * The greatest place in a visit's order. A visit that has an event there already goes on at the same place: a device's own
 * events are then told apart by their ids, which are made in order.
 */
export const MOST_SEQ = 1_000_000;
