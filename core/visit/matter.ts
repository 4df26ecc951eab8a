import { printDuration } from '../units/print';
import type { Alarm } from './alarms';
import type { StayClock } from './stay-clocks';

/** How near a limit of the stay goes before everything but danger, ms. */
const NEAR_MS = 10 * 60_000;

/** The one matter that is spoken of above the pads. */
export type Matter = { is: 'danger' } | { is: 'limit'; clock: StayClock; near: boolean } | { is: 'stopped' | 'reading'; alarm: Alarm };

/**
 * What is spoken of now: danger; then a limit of the stay that is within ten minutes, or was passed in the last ten; then
 * whether it has stopped; then what comes next: a reading that is due, else the limit that comes first.
 * @param answered keys of alarms that somebody answered @param at UTC ms
 */
export function matterNow(
  o: { inDanger: boolean; clocks: readonly StayClock[]; alarms: readonly Alarm[]; answered: ReadonlySet<string> },
  at: number,
): Matter | null {
  if (o.inDanger) return { is: 'danger' };
  const near = o.clocks.find((c) => Math.abs(c.until - at) <= NEAR_MS);
  if (near) return { is: 'limit', clock: near, near: true };
  const due = dueNow(o.alarms, at).filter((a) => !o.answered.has(a.key));
  for (const ask of ['stopped', 'reading'] as const) {
    const alarm = due.find((a) => a.ask === ask);
    if (alarm) return { is: ask, alarm };
  }
  const next = o.clocks.find((c) => c.until >= at) ?? o.clocks[0];
  return next ? { is: 'limit', clock: next, near: false } : null;
}

/** Alarms to be told at an instant, UTC ms. */
export const dueNow = (alarms: readonly Alarm[], at: number): Alarm[] => alarms.filter((a) => a.due <= at && at < (a.until ?? Number.POSITIVE_INFINITY));

const LIMITS: Readonly<Record<StayClock['kind'], [before: string, after: string]>> = {
  idle_grace: ['Idle fee starts in', 'Idle fee may run since'],
  overstay: ['Overstay fee starts in', 'Overstay fee may run since'],
  max_stay: ['Max stay ends in', 'Max stay over by'],
};
/** A limit of the stay and the time to it, or since it, without tenths. @param at UTC ms */
export function limitText({ kind, until }: StayClock, at: number): { words: string; time: string; past: boolean } {
  const left_s = Math.ceil((until - at) / 1000);
  const past = left_s < 0;
  const s = Math.abs(left_s);
  return { words: LIMITS[kind][past ? 1 : 0], time: s < 60 ? `0:${String(s).padStart(2, '0')}` : printDuration(s), past };
}
