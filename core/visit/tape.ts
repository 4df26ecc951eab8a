import { faultLabel } from '../faults/fault-list';
import { chargingEnd } from './attempt-times';
import type { Attempt } from './attempts/attempt';
import { isActAtStall } from './kinds/registry';
import { powerLooks } from './shown-power';
import type { Placed } from './timeline/placed';
import type { Mark, Timing } from './timing';

/** What a stretch of the tape is painted as. */
export type SegmentKind = 'bare' | 'queue' | 'handshake' | 'fault' | 'energy' | 'idle';
export type Segment = {
  kind: SegmentKind;
  /** UTC ms. */
  from: number;
  to: number;
  /** Attempt number where it belongs to one. */
  attempt?: number;
  label?: string;
  /** Energy only: kW read, with their times; empty when none was read. */
  kW?: { t: number; kW: number }[];
};

/** A stretch as kept for the thin tape of a list row: kind and whole seconds. */
export type ThinSegment = [SegmentKind, number];

/**
 * Lays the tape: the visit's stretches from the first event to the last, without gap or overlap.
 * @param until UTC ms up to which a running visit is painted; the last event's time when the visit is over
 */
export function layTape(line: readonly Placed[], attempts: readonly Attempt[], queue: Timing, until: number): Segment[] {
  const start = line[0]?.t;
  if (start === undefined) return [];
  const acts = line.filter((e) => isActAtStall(e.kind) && !e.onlySeen);
  const nextAct = (after: Mark) => acts.find((e) => e.place > after.place)?.t ?? until;
  const out: Segment[] = [];
  let cursor = start;
  const paint = (segment: Omit<Segment, 'from'>) => {
    const to = Math.min(Math.max(segment.to, cursor), Math.max(until, cursor));
    if (to > cursor) out.push({ ...segment, from: cursor, to });
    cursor = Math.max(cursor, to);
  };
  const bareTo = (to: number) => {
    if (queue.known && cursor < queue.to.t && to > queue.from.t) {
      paint({ kind: 'bare', to: Math.min(queue.from.t, to) });
      paint({ kind: 'queue', to: Math.min(queue.to.t, to) });
    }
    paint({ kind: 'bare', to });
  };

  for (const [i, a] of attempts.entries()) {
    const limit = attempts[i + 1]?.opened.t ?? until;
    bareTo(a.opened.t);
    const paintTo = (segment: Omit<Segment, 'from'>) => paint({ ...segment, to: Math.min(segment.to, limit), attempt: a.n });
    if (a.outcome.kind === 'gave_up' && a.refusals.length === 0) paintTo({ kind: 'fault', to: limit, label: a.outcome.reason });
    else if (a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up') {
      const at = (a.outcome.kind === 'gave_up' ? a.refusals.at(-1) : undefined) ?? a.outcome.at;
      paintTo({ kind: 'handshake', to: at.t });
      paintTo({ kind: 'fault', to: nextAct(at), label: a.outcome.reason });
    } else if (!a.proof) paintTo({ kind: 'handshake', to: a.ended?.at.t ?? limit });
    else {
      paintTo({ kind: 'handshake', to: a.proof.t });
      const end = chargingEnd(a) ?? a.ended?.at;
      const until = end?.t ?? limit;
      for (const p of [...a.pauses, { from: { t: until }, to: { t: until } }]) {
        paintTo({ kind: 'energy', to: p.from.t, kW: powerLooks(a.readings).points });
        paintTo({ kind: 'bare', to: p.to.t, label: 'paused' });
      }
      if (a.ended?.fault) paintTo({ kind: 'fault', to: nextAct(a.ended.at), label: faultLabel(a.ended.fault.code) });
      else paintTo({ kind: 'idle', to: a.unplugged?.t ?? (a.ended ? limit : until) });
    }
  }
  bareTo(until);
  return out;
}

export const thinTape = (segments: readonly Segment[]): ThinSegment[] => segments.map((s) => [s.kind, Math.max(1, Math.round((s.to - s.from) / 1000))]);
