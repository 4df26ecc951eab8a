import { isInstant } from '../../units/instant';
import type { Precision } from '../event';
import { type Corrected, isTouch } from './placed';

/** An event on the time line of its own device. */
export type Timed = {
  e: Corrected;
  /** UTC ms by the device. */
  t: number;
  /** Where it stands among all: never before what the device recorded earlier. */
  key: number;
  seam: number;
  jumped_s?: number;
  /** UTC ms by which the wall clock is ahead of the line here: what its jumps add up to. */
  ahead: number;
};

/** An event on the one line of the visit: its device's clock put level with the recorder's. `clock_s`: how well, ± seconds. */
export type Levelled = Timed & { clock_s: number };

/** Wall and page clock may differ by so much before one of them is disbelieved. */
const JUMP_MS = 2000;
/** A typed or corrected time belongs to no stretch of the device's clock. */
const NO_SEAM = -1;

/**
 * How well a corrected time is known: moved by whole minutes, or filled in to the minute, it is a memory in minutes.
 * @param shown UTC ms, the time as it was shown before
 */
function correctedPrecision(e: Corrected, shown: number): Precision {
  if (e.precision === 'day') return e.at % 60_000 === 0 ? 'min' : 's';
  const moved = e.at - Math.round(shown);
  if (moved === 0) return e.precision;
  return moved % 60_000 === 0 ? 'min' : 's';
}

/**
 * The time line of one device, in `seq` order.
 *
 * Within one page life the steps of wall and page clock are compared: more than 2 s apart, the wall is believed when it is
 * ahead and the page slept, else the page clock. Between lives a wall clock that runs back leaves the order and makes
 * durations across it unknown. Typed, imported and corrected times are as they say, whatever the clock did; an event of
 * which only the day is known keeps its place among the device's own.
 */
export function deviceLine(events: readonly Corrected[]): Timed[] {
  const list = [...events].sort((a, b) => a.seq - b.seq || (a.id < b.id ? -1 : 1));
  const out: Timed[] = [];
  let prev: { at: number; mono: number; life: string; t: number } | null = null;
  let seam = 0;
  let reach = Number.NEGATIVE_INFINITY;
  for (const e of list) {
    const wall = e.touchedAt ?? e.at;
    if (e.origin === 'typed' || e.origin === 'imported') {
      const precision = e.touchedAt === undefined ? e.precision : correctedPrecision(e, wall);
      out.push({ e: { ...e, precision }, t: e.at, key: e.at, seam: NO_SEAM, ahead: 0 });
      continue;
    }
    // Touched, then corrected or not: the touch itself tells how the clocks ran.
    let t: number = wall;
    let jumped: number | undefined;
    if (prev) {
      const step: number = wall - prev.at;
      if (e.life === prev.life) {
        const mono: number = e.mono - prev.mono;
        const slept = step > mono && !e.awake;
        const believed: number = Math.abs(step - mono) > JUMP_MS && !slept ? mono : step;
        if (believed !== step) jumped = (step - mono) / 1000;
        t = prev.t + believed;
      } else if (step < 0) {
        seam += 1;
      } else {
        // A jump seen earlier stays taken out, so that the two lives share one time line.
        t = prev.t + step;
      }
      // Clocks that lead out of every calendar are none: the wall time is all there is.
      if (!isInstant(Math.round(t))) t = wall;
    }
    prev = { at: wall, mono: e.mono, life: e.life, t };
    const jump = jumped === undefined ? {} : { jumped_s: jumped };
    if (!isTouch(e)) out.push({ e: { ...e, precision: correctedPrecision(e, t) }, t: e.at, key: e.at, seam: NO_SEAM, ahead: wall - t, ...jump });
    else {
      reach = Math.max(reach, t);
      out.push({ e, t, key: reach, seam, ahead: wall - t, ...jump });
    }
  }
  return daysInOrder(out);
}

/** What has no time of its own stands right after what the device recorded before it; the first of all, before what follows. */
function daysInOrder(line: Timed[]): Timed[] {
  if (line.every((x) => x.e.precision === 'day')) return line;
  let before = line.find((x) => x.e.precision !== 'day')?.key ?? 0;
  return line.map((x) => {
    if (x.e.precision === 'day') return { ...x, key: before };
    before = x.key;
    return x;
  });
}
