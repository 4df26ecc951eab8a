import { finish, type Steps } from '../units/steps';
/** A look at the power, seconds from the proof of power. */
export type Look = { t_s: number; kW: number };
/** A sample of a recorder, seconds on its own line. */
export type Sample = { s: number; kW?: number | undefined };

/** Where a recorder's line lies beside a session: a sample at `s` was at `s + offset_s` after the proof of power. */
export type LogAligned = {
  offset_s: number;
  /** Correlation of the two, 1 at best. */
  r: number;
  /** The best correlation half a minute away or farther, of a charge of many hours or of lines a minute apart more: where it is as good, the place is not told. */
  next: number;
  /** Looks that lie within the log. */
  looks: number;
};

const STEP_S = 5;
const FINE_S = 0.5;
/** A charge of many hours is looked at in so many steps: its power changes as slowly as it is long. */
const MOST_STEPS = 720;
/** What is looked at before power and after it went, steps: the edges tell most. */
const AROUND = 18;
/** So many steps from the best place is another: without edges power that changes evenly fits there as well. */
const ELSEWHERE = 6;
/** Looks that say something of where it lies, at least. */
const LEAST_LOOKS = 3;
/** Of the session the log must have so much. */
const LEAST_COVER = 0.6;

/** Power between two knots by a straight line; nothing beyond them. */
function at(x: readonly number[], y: readonly number[], t: number): number | null {
  const n = x.length;
  if (n === 0 || t < (x[0] as number) || t > (x[n - 1] as number)) return null;
  let [low, high] = [0, n - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((x[middle] as number) <= t) low = middle;
    else high = middle;
  }
  const [a, b] = [x[low] as number, x[high] as number];
  return b === a ? (y[low] as number) : (y[low] as number) + (((y[high] as number) - (y[low] as number)) * (t - a)) / (b - a);
}

/** So little flows when nothing is charged: heating, the car's own needs. kW. */
const FLOWS_KW = 1;
/** By so much a log that was written only while it charged may be longer or shorter than the session: what a tap is late. Or the time from one of its lines to the next, or so much of the whole. */
const ALIKE = { s: 30, of: 0.02 } as const;
type Power = { s: number; kW: number };

/** So long nothing was written is a gap: what flowed in it is not told. Or so many times what usually lies between two lines. */
const GAP = { s: 600, lines: 10 } as const;
const still = (s: number): Power => ({ s, kW: 0 });
const notTold = (s: number): Power => ({ s, kW: Number.NaN });

/** What usually lies between two lines of a log, seconds: the median, which gaps do not move. */
const usualApart = (samples: readonly Power[]): number => {
  const apart = samples.slice(1).map((x, i) => x.s - (samples[i] as Power).s);
  return apart.sort((a, b) => a - b)[apart.length >> 1] as number;
};

/** A log in its pieces: where nothing was written for long another begins. */
function pieces(samples: readonly Power[]): Power[][] {
  const gap = Math.max(GAP.s, GAP.lines * usualApart(samples));
  const out: Power[][] = [[]];
  for (const [i, x] of samples.entries()) {
    if (i > 0 && x.s - (samples[i - 1] as Power).s > gap) out.push([]);
    out.at(-1)?.push(x);
  }
  return out;
}

/**
 * A recorder that writes only while it charges has no edges, and power that changes slowly fits minutes farther nearly as well. A piece as long as the session and with power from
 * its first line to its last had nothing before and after: that is what the edges tell. Between pieces nothing is told.
 * @param far_s so much of what lies beyond is taken as still
 */
function withEdges(samples: readonly Power[], end_s: number, far_s: number): Power[] {
  return pieces(samples).flatMap((piece) => {
    const [first, last] = [piece[0] as Power, piece.at(-1) as Power];
    const over = last.s - first.s;
    const alike = Math.max(ALIKE.s, over / Math.max(1, piece.length - 1), ALIKE.of * end_s);
    const edges = first.kW >= FLOWS_KW && last.kW >= FLOWS_KW && Math.abs(over - end_s) <= alike;
    const own = edges ? [still(first.s - far_s), still(first.s - 1), ...piece, still(last.s + 1), still(last.s + far_s)] : piece;
    return [notTold((own[0] as Power).s - 0.5), ...own, notTold((own.at(-1) as Power).s + 0.5)];
  });
}

function correlation(a: readonly number[], b: readonly number[]): number {
  const n = a.length;
  if (n < 4) return Number.NEGATIVE_INFINITY;
  const mean = (v: readonly number[]) => v.reduce((s, x) => s + x, 0) / n;
  const [ma, mb] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    const [x, y] = [(a[i] as number) - ma, (b[i] as number) - mb];
    ab += x * y;
    aa += x * x;
    bb += y * y;
  }
  return aa === 0 || bb === 0 ? Number.NEGATIVE_INFINITY : ab / Math.sqrt(aa * bb);
}

/**
 * Lays a recorder's line beside a session by cross-correlation: the shift at which its power goes with what the driver read, nothing before power and nothing after it went.
 * @param looks at the power within the session @param end_s seconds from the proof of power to its end
 * @returns `null` where there are too few looks, or the log has too little of the session
 */
export const alignLog = (looks: readonly Look[], end_s: number, log: readonly Sample[]): LogAligned | null => finish(aligningLog(looks, end_s, log));

/** The same in steps: a log of a day is laid at some thousand places. */
export function* aligningLog(looks: readonly Look[], end_s: number, log: readonly Sample[]): Steps<LogAligned | null> {
  const within = looks.filter((l) => l.t_s > 0 && l.t_s < end_s).sort((a, b) => a.t_s - b.t_s);
  const written = log.filter((s): s is Power => s.kW !== undefined);
  const [first, last] = [within[0], within.at(-1)];
  if (within.length < LEAST_LOOKS || written.length < 4 || !first || !last || !(end_s > 0)) return null;
  const step = Math.max(STEP_S, Math.ceil(end_s / MOST_STEPS));
  const around = AROUND * step;
  const knots: [number, number][] = [
    [-around, 0],
    [0, 0],
    [1, first.kW],
    ...within.map((l): [number, number] => [l.t_s, l.kW]),
    [end_s, last.kW],
    [end_s + 1, 0],
    [end_s + around, 0],
  ];
  const [x, y] = [knots.map((k) => k[0]), knots.map((k) => k[1])];
  const samples = withEdges(written, end_s, Math.min(end_s, 2 * around, GAP.s / 2 - 1));
  const [u, v] = [samples.map((s) => s.s), samples.map((s) => s.kW)];
  const logAt = (s: number): number | null => {
    const kW = at(u, v, s);
    return kW === null || Number.isNaN(kW) ? null : kW;
  };
  const moments: number[] = [];
  for (let t = -around; t <= end_s + around; t += step) moments.push(t);
  const own = moments.map((t) => at(x, y, t) as number);
  const fitted = (kWAt: (i: number) => number | null): number => {
    const a: number[] = [];
    const b: number[] = [];
    for (const [i, kW] of own.entries()) {
      const logged = kWAt(i);
      if (logged === null) continue;
      a.push(kW);
      b.push(logged);
    }
    return a.length >= LEAST_COVER * own.length ? correlation(a, b) : Number.NEGATIVE_INFINITY;
  };
  // Shifted by whole steps it is asked at the same moments over and over: they are worked out once.
  const [begin, over] = [u[0] as number, (u.at(-1) as number) - (u[0] as number)];
  const grid = Array.from({ length: Math.floor(over / step) + 1 }, (_, k) => logAt(begin + k * step));
  const coarse: [number, number][] = [];
  for (let k = 1 - own.length; k < grid.length; k++) {
    coarse.push([-around - begin - k * step, fitted((i) => grid[i + k] ?? null)]);
    yield;
  }
  const best = coarse.reduce((a, b) => (b[1] > a[1] ? b : a), [0, Number.NEGATIVE_INFINITY]);
  if (!Number.isFinite(best[1])) return null;
  let [offset_s, r] = best;
  for (let offset = best[0] - step; offset <= best[0] + step; offset += FINE_S) {
    const found = fitted((i) => logAt((moments[i] as number) - offset));
    if (found > r) [offset_s, r] = [offset, found];
    yield;
  }
  // Lines a minute apart blur their edges by as much.
  const elsewhere = Math.max(ELSEWHERE * step, usualApart(written));
  const next = coarse.reduce((most, [offset, c]) => (Math.abs(offset - offset_s) >= elsewhere && c > most ? c : most), -1);
  return {
    offset_s,
    r,
    next,
    looks: within.filter((l) => l.t_s - offset_s >= (written[0] as Power).s && l.t_s - offset_s <= (written.at(-1) as Power).s).length,
  };
}

/** Farther from the tap an edge is another one. */
const EDGE_S = 120;
export type TapErrors = {
  /** Seconds by which the driver's tap came after the log, or before it; `null` where the log does not have that edge. */
  power_s: number | null;
  end_s: number | null;
  /** kW that the driver read less what the log has at that moment. */
  looks: { t_s: number; kW: number; log_kW: number }[];
};

/** How far the driver's taps are from what the recorder saw, once it is laid beside them. @param end_s of the session as it was tapped */
export function tapErrors(looks: readonly Look[], end_s: number, log: readonly Sample[], offset_s: number): TapErrors {
  const samples = log.flatMap((s) => (s.kW === undefined ? [] : [{ t: s.s + offset_s, kW: s.kW }]));
  const middle = end_s / 2;
  const flows = (i: number) => (samples[i]?.kW ?? 0) >= FLOWS_KW;
  const near = (t: number) => t >= -EDGE_S && t <= end_s + EDGE_S;
  // The outermost edges: a pause lies between them.
  const on = samples.find((s, i) => near(s.t) && s.t < middle && i > 0 && flows(i) && !flows(i - 1));
  const off = samples.findLast((s, i) => near(s.t) && s.t > middle && i < samples.length - 1 && flows(i) && !flows(i + 1));
  const [x, y] = [samples.map((s) => s.t), samples.map((s) => s.kW)];
  return {
    power_s: on ? -on.t : null,
    end_s: off ? end_s - off.t : null,
    looks: looks.flatMap((l) => {
      const log_kW = at(x, y, l.t_s);
      return log_kW === null || l.t_s < 0 || l.t_s > end_s ? [] : [{ ...l, log_kW }];
    }),
  };
}

/** Below this it is not said that the two belong together. */
const LEAST_R = 0.8;
/** Nearer than this the second best place is as good. */
const LEAST_AHEAD = 0.03;
/** Whether the place of a log is told: it goes with what was read, and nowhere else nearly as well. */
export const isTold = (a: LogAligned): boolean => a.r >= LEAST_R && a.r - a.next >= LEAST_AHEAD;

/** Whether a log that lies so has a session: power flows in it for half of what it has of it, at least. @param end_s seconds from the session's proof of power to its end */
export function hasSession(log: readonly Sample[], offset_s: number, end_s: number): boolean {
  const within = log.filter((s) => s.kW !== undefined && s.s + offset_s > 0 && s.s + offset_s < end_s);
  return within.length > 0 && within.filter((s) => (s.kW as number) >= FLOWS_KW).length * 2 >= within.length;
}

/** Readings kept of a log, at most, and at least so far apart, seconds: a curve needs no more, and a visit holds only so many events. */
const MOST_KEPT = 300;
export const LEAST_APART_S = 10;
/** Of a log's samples within a session those that are kept as readings. */
export function keptSamples<T extends Sample>(log: readonly T[], offset_s: number, end_s: number): (T & { t_s: number })[] {
  const within = log.map((s) => ({ ...s, t_s: s.s + offset_s })).filter((s) => s.t_s > 0 && s.t_s < end_s);
  const apart = Math.max(LEAST_APART_S, end_s / MOST_KEPT);
  const out: (T & { t_s: number })[] = [];
  for (const s of within) if (s.t_s - (out.at(-1)?.t_s ?? Number.NEGATIVE_INFINITY) >= apart) out.push(s);
  return out.slice(0, MOST_KEPT);
}
