import type { KeptEvent } from '@/client/store/phone-store';
import { printStopwatch } from '@/core/units/print';
import { chargingEnd, lastRequiredAct } from '@/core/visit/attempt-times';
import type { Visit } from '@/core/visit/derive';
import { eventLabel } from '@/core/visit/kinds/registry';
import { isPlugged } from '@/core/visit/next-act';
import type { Placed } from '@/core/visit/timeline/placed';
import type { UprightMark } from '@/ui/tape/upright-tape';
import type { LiveFacts } from './live-facts';

/** One mark of the upright tape, flagged when the server refused it or the clock jumped. */
export function markOf(e: Placed, kept: readonly KeptEvent[], stallName: (id: string) => string): UprightMark {
  const refused = kept.find((k) => k.event.id === e.id)?.state === 'refused';
  const flag = refused ? 'refused' : e.jumped_s === undefined ? undefined : `clock jumped ${Math.round(e.jumped_s)} s`;
  return {
    id: e.id,
    t: e.t,
    text: eventLabel(e, (type, id) => (type === 'stall' ? stallName(id) : '')),
    fault: e.kind === 'fault' || e.kind === 'means_refused',
    ...(flag ? { flag } : {}),
  };
}

/** What the Undo pad would take back, in words. */
export function undoLabel(k: KeptEvent, visit: Visit): string {
  const placed = visit.line.find((e) => e.id === k.event.id);
  return placed ? eventLabel(placed).toLowerCase() : k.event.kind === 'correction' ? 'correction' : k.event.kind;
}

/** The hint under Add a reading: values grow old. @param now UTC ms */
export function lastReading(attempt: Visit['attempts'][number] | undefined, now: number): string {
  const r = attempt?.readings.at(-1);
  if (!r) return 'battery, kW, kWh, cost';
  const figures = [r.socPct === undefined ? null : `${r.socPct} %`, r.kW === undefined ? null : `${r.kW} kW`].filter(Boolean).join(' and ');
  const minutes = Math.floor((now - r.mark.t) / 60_000);
  return `last ${figures || 'reading'}, ${minutes < 1 ? 'just now' : `${minutes} min ago`}`;
}

/** What the road is painted with below the last mark. */
export function runningPaint(visit: Visit): 'handshake' | 'fault' | 'energy' | 'idle' | null {
  const a = visit.attempts.at(-1);
  if (!a || visit.pulledOutAt !== null) return null;
  if (!a.ended) return a.proof ? (a.stopAsked || a.powerGone ? 'idle' : 'energy') : 'handshake';
  if (a.outcome.kind === 'failed') return 'fault';
  return a.proof && isPlugged(visit) ? 'idle' : null;
}

/** Which clock runs, and from when. */
export function clockOf(visit: Visit): { from: number; label: string } {
  const a = visit.attempts.at(-1);
  const lastT = visit.line.at(-1)?.t ?? visit.lastEventAt;
  if (a && !a.ended && !a.proof) {
    const act = lastRequiredAct(a);
    return typeof act === 'string' ? { from: a.opened.t, label: 'Since the first act' } : { from: act.t, label: 'Handshake, running' };
  }
  if (a?.proof) {
    const end = chargingEnd(a);
    if (end && isPlugged(visit)) return { from: end.t, label: 'Idle, running' };
  }
  if (a?.outcome.kind === 'failed') return { from: a.outcome.at.t, label: 'Since the fault' };
  const joined = visit.line.find((e) => e.kind === 'queue_joined');
  if (joined && !visit.line.some((e) => e.kind === 'stall_free' || e.kind === 'stall_chosen')) return { from: joined.t, label: 'Queue, running' };
  return visit.pulledInAt === null ? { from: lastT, label: 'Since the last event' } : { from: visit.pulledInAt, label: 'At the site' };
}

/** The one sentence above the pads: what is heeded now, or what the figures mean. While power flows the board says it. */
export function oneSentence(visit: Visit, f: Pick<LiveFacts, 'charging' | 'next' | 'adapter' | 'usual' | 'attempt'>): string | null {
  const { attempt } = f;
  if (f.charging) return null;
  if (isPlugged(visit) && attempt?.proof) return 'Treat the connector as live until stall and car both say the charge has ended. Never force or pull it.';
  if (f.next === 'plugged' || f.next === 'adapter_fitted')
    return `${f.adapter ? 'One adapter only, within its rated amps and volts. ' : ''}No damaged connector, none that is wet inside. Keep the cable off the way.`;
  if (!attempt || attempt.ended || attempt.proof) return null;
  if (attempt.shows.length > 1 || attempt.refusals.length > 0 || !f.usual)
    return 'If you give up, end it at the stall first. Each further card shown may mean another hold.';
  return f.usual.s === null
    ? `Fewer than half of ${f.usual.attempts} attempts like this at this ${f.usual.of} got power.`
    : `Usual at this ${f.usual.of}: ${printStopwatch(f.usual.s)}, of ${f.usual.attempts} attempts.`;
}
