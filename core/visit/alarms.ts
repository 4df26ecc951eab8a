import type { Visit } from './derive';
import type { StayClock } from './stay-clocks';

/** Something to be told about once. `key` stays the same while it is the same matter; a `soft` one only buzzes. */
export type Alarm = { key: string; text: string; due: number /** No use after this, UTC ms. */; until?: number; ask?: 'stopped' | 'reading'; soft?: true };

/** Minutes before a limit at which it is said. */
const AHEAD_MIN = { idle_grace: 3, overstay: 5, max_stay: 10 } as const;
/** Seconds before the battery shows its next full ten at which the reading is asked for. */
const TEN_AHEAD_S = 60;
/** Minutes without any event while charging after which it is asked whether it still does. */
const QUIET_MIN = 20;

const WORDS = { idle_grace: 'The idle grace ends', overstay: 'The overstay limit comes', max_stay: 'The max stay ends' } as const;

/**
 * Every alarm of an open visit with the instant it is due, soonest first.
 * @param ten when the battery will show its next full ten by the pace of the readings, UTC ms; `null` when nothing tells
 */
export function alarms(v: Visit, clocks: readonly StayClock[], ten: { pct: number; at: number } | null): Alarm[] {
  if (v.pulledOutAt !== null) return [];
  const out: Alarm[] = clocks.map((c) => ({
    key: `${c.kind} ${c.until}`,
    text: `${WORDS[c.kind]} in ${AHEAD_MIN[c.kind]} min`,
    due: c.until - AHEAD_MIN[c.kind] * 60_000,
    until: c.until,
  }));
  const last = v.attempts.at(-1);
  if (last?.proof && !last.ended && !last.stopAsked && !last.powerGone) {
    const quiet = v.lastEventAt + QUIET_MIN * 60_000;
    const fullAt = ten?.pct === 100 ? ten.at : null;
    const due = fullAt !== null && fullAt > v.lastEventAt ? Math.min(quiet, fullAt) : quiet;
    if (ten && ten.pct < 100)
      out.push({ key: `ten ${last.n} ${ten.pct}`, text: `${ten.pct} % is near: a reading?`, due: ten.at - TEN_AHEAD_S * 1000, ask: 'reading', soft: true });
    out.push({ key: `stopped ${v.lastEventAt}`, text: 'Has it stopped?', due, ask: 'stopped' });
  }
  return out.sort((a, b) => a.due - b.due);
}
