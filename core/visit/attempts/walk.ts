import type { Placed } from '../timeline/placed';
import { type Mark, markOf } from '../timing';
import type { AttemptFault, Draft, EndedBy, EndMark, Reading } from './attempt';

/** Where the walk through the events of a visit stands. */
export type Walk = {
  attempts: Draft[];
  /** The stall one stands at. */
  stallId: string | null;
  connectorId?: string;
  /** Pulled in at a place that has no name yet: its stall has none either. */
  unnamed?: boolean;
  /** The attempt that is open. */
  current: Draft | null;
  /** Last attempt opened since the stall was chosen: what comes after its end belongs to it. */
  here: Draft | null;
  /** The plug is in since. */
  plug: Mark | null;
  /** The driver meant to try again here, and no attempt is open yet. */
  again?: Mark;
  /** Read at the stall while no attempt was open there: of the next one, else of the last. */
  waiting: Reading[];
};

export const newWalk = (): Walk => ({ attempts: [], stallId: null, current: null, here: null, plug: null, waiting: [] });

/** Opens an attempt at the stall one stands at. */
export function open(w: Walk, at: Mark, fields: Partial<Draft> = {}): Draft {
  const a: Draft = {
    stallId: w.stallId,
    ...(w.connectorId ? { connectorId: w.connectorId } : {}),
    opened: w.again ?? at,
    ...(w.again ? { firstAct: w.again } : {}),
    pluggedEarlier: false,
    shows: [],
    refusals: [],
    pauses: [],
    faults: [],
    readings: w.waiting,
    ...fields,
  };
  w.waiting = [];
  delete w.again;
  w.attempts.push(a);
  w.current = a;
  w.here = a;
  return a;
}

/** Leaves the stall, or the visit: what was read there and no attempt followed belongs to the last one. */
export function settleReadings(w: Walk): void {
  w.here?.readings.push(...w.waiting);
  w.waiting = [];
}

/** Ends the open attempt; where power had stopped before, it ended when that happened. */
export function end(w: Walk, at: Mark, by: EndedBy, fault?: AttemptFault): void {
  if (!w.current) return;
  w.current.ended = { at: w.current.paused ?? at, by, ...(fault ? { fault } : {}) };
  w.current = null;
}

/** Ends the open attempt by what the driver did at the stall: it ended by itself where power had stopped before. */
export const endByAct = (w: Walk, at: Mark, by: EndedBy): void => end(w, at, w.current?.paused ? 'power_gone' : by);

/** The open attempt that something at the stall belongs to, opening one when there is none. */
export const attemptFor = (w: Walk, e: Placed): Draft => w.current ?? open(w, markOf(e), w.plug && e.kind !== 'plugged' ? { pluggedEarlier: true } : {});

/** The same for an act of the driver: power that comes back after one is of a new attempt. */
export function attemptForAct(w: Walk, e: Placed): Draft {
  if (w.current?.paused) end(w, w.current.paused, 'act_after_power');
  return attemptFor(w, e);
}

/** The first word that power has stopped. */
export function pause(a: Draft, at: Mark): void {
  a.paused ??= at;
}

/** The first word that power is back. After the driver pressed stop it is not: charging ended where the pause began. */
export function resume(a: Draft, at: Mark): void {
  if (!a.paused || (a.stopAsked && a.stopAsked.place > a.paused.place)) return;
  a.pauses.push({ from: a.paused, to: at });
  delete a.paused;
  delete a.powerGone;
}

/** Somebody saw power. */
export function prove(a: Draft, e: Placed, mark: EndMark, late: boolean): void {
  const at = markOf(e);
  if (a.proof) {
    resume(a, at);
    return;
  }
  a.proof = { ...at, mark, late };
  delete a.paused;
  delete a.powerGone;
}
