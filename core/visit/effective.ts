import { EVENT_VERSION, type StoredEvent, type VisitEvent } from './event';
import { isKind } from './kinds/registry';
import type { PayloadCheck } from './payloads';
import { type FieldValue, isFieldPath, setFields } from './set-fields';
import type { Corrected } from './timeline/placed';

/** One change made to an event afterwards, oldest first: shown as the event's history. */
export type CorrectionNote = { id: string; personId: string; madeAt: number; field: string; value: FieldValue };

export type Effective = {
  /** Known kinds only, corrections applied, withdrawn events and the bookkeeping kinds taken out. Unordered. */
  events: Corrected[];
  /** Ids of all that was taken back, corrections and withdrawals as well. */
  gone: ReadonlySet<string>;
  /** Events taken back, as they were. */
  withdrawn: VisitEvent[];
  visitWithdrawn: boolean;
  /** The withdrawals of the visit that stand, newest last: withdrawing these restores it. */
  visitWithdrawals: string[];
  /** Some event came from a newer version and is ignored here. */
  newer: boolean;
  /** What stands beside the line, oldest first: kinds and versions not known here, and corrections and withdrawals of what has not arrived. */
  aside: StoredEvent[];
  history: Map<string, CorrectionNote[]>;
};

type Bookkeeping = VisitEvent & { kind: 'withdrawal' | 'correction' };
const isBookkeeping = (e: VisitEvent): e is Bookkeeping => e.kind === 'withdrawal' || e.kind === 'correction';

/** Later in the record's own order: greater seq, then device, then id. */
const later = (a: StoredEvent | VisitEvent, b: StoredEvent | VisitEvent): number =>
  a.seq - b.seq || (a.deviceId < b.deviceId ? -1 : a.deviceId > b.deviceId ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/**
 * Applies withdrawals and corrections. Input in any order, with duplicates.
 * - A withdrawal counts while it is not itself withdrawn; it can only take back what stands before it, so that
 *   a hostile ring of withdrawals has one reading in every order of arrival.
 * - Per field of a target the correction with the greatest (seq, device) wins. A correction that would put a
 *   payload out of bounds is left unapplied; corrections of corrections are not a thing.
 */
export function effectiveEvents(events: readonly StoredEvent[], visitId: string, check: PayloadCheck): Effective {
  const byId = new Map<string, StoredEvent>();
  for (const e of events) if (!byId.has(e.id)) byId.set(e.id, e);

  const beyond: StoredEvent[] = [];
  const all: VisitEvent[] = [];
  for (const e of byId.values()) {
    if (!isKind(e.kind) || e.v > EVENT_VERSION) beyond.push(e);
    else all.push(e as VisitEvent);
  }
  all.sort(later);
  const waiting = all.filter((e) => isBookkeeping(e) && e.payload.target !== visitId && !byId.has(e.payload.target));

  // From the latest back: whether a withdrawal stands is settled before what it takes back is looked at.
  const gone = new Set<string>();
  const visitWithdrawals: string[] = [];
  for (let i = all.length - 1; i >= 0; i--) {
    const e = all[i] as VisitEvent;
    if (e.kind !== 'withdrawal' || gone.has(e.id)) continue;
    if (e.payload.target === visitId) visitWithdrawals.unshift(e.id);
    else {
      const target = byId.get(e.payload.target);
      if (target && later(target, e) < 0) gone.add(target.id);
    }
  }

  const history = new Map<string, CorrectionNote[]>();
  const corrections = new Map<string, (VisitEvent & { kind: 'correction' })[]>();
  for (const e of all) {
    if (e.kind !== 'correction' || gone.has(e.id)) continue;
    const list = corrections.get(e.payload.target) ?? [];
    list.push(e);
    corrections.set(e.payload.target, list);
  }

  const result: Effective = {
    events: [],
    gone,
    withdrawn: [],
    visitWithdrawn: visitWithdrawals.length > 0,
    visitWithdrawals,
    newer: beyond.length > 0,
    aside: [...beyond, ...waiting].sort(later),
    history,
  };
  for (const e of all) {
    if (isBookkeeping(e)) continue;
    if (gone.has(e.id)) {
      result.withdrawn.push(e);
      continue;
    }
    result.events.push(correct(e, corrections.get(e.id) ?? [], history, check));
  }
  return result;
}

function correct(e: VisitEvent, corrections: (VisitEvent & { kind: 'correction' })[], history: Map<string, CorrectionNote[]>, check: PayloadCheck): Corrected {
  if (corrections.length === 0) return e;
  let at: number | null = null;
  let payload = e.payload as Record<string, unknown>;
  const notes: CorrectionNote[] = [];
  for (const c of corrections) {
    const note = (field: string, value: FieldValue) => notes.push({ id: c.id, personId: c.personId, madeAt: c.at, field, value });
    if (c.payload.at !== undefined) {
      at = c.payload.at;
      note('at', at);
    }
    if (c.payload.set) {
      const next = setFields(payload, c.payload.set);
      if (check(e.kind, next)) continue;
      payload = next;
      for (const [field, value] of Object.entries(c.payload.set)) if (isFieldPath(field)) note(field, value);
    }
  }
  if (notes.length > 0) history.set(e.id, notes);
  // The time as corrected is the time as shown; the touch itself still tells how the device's clock ran.
  return { ...e, at: at ?? e.at, payload, ...(at === null ? {} : { touchedAt: e.at }) } as Corrected;
}
