/** A curve through readings that never falls where they do not: knots and the slope at each. */
export type MonotoneCurve = {
  x: readonly number[];
  y: readonly number[];
  /** Of y per x, at each knot. */
  slopes: readonly number[];
  /** Whether the published single pass was monotone already. */
  onePassIsEnough: boolean;
};

const SAME = 1e-12;

/**
 * Monotone cubic interpolation. Slopes start as means of the neighbouring secants; a pass over the intervals then
 * scales both slopes of an interval down to 3 ÷ √(α² + β²) where the cubic would leave the region in which it is
 * monotone. The single pass of R's `splinefun(method = "monoH.FC")` can spoil an interval before it (10, 16, 17, 17
 * rises to 17.008 ahead of the second 17), so that it is repeated until nothing changes.
 * Source: F. N. Fritsch & R. E. Carlson, SIAM J. Numer. Anal. 17 (1980), 238–246. O(n) a pass, at most n passes.
 * @param x strictly increasing @param y as many, at least one
 * @throws RangeError without points, or when x does not rise
 */
export function monotoneCurve(x: readonly number[], y: readonly number[]): MonotoneCurve {
  if (x.length === 0 || x.length !== y.length) throw new RangeError('a curve needs as many y as x, at least one');
  const secants: number[] = [];
  for (let k = 1; k < x.length; k++) {
    const [dx, dy] = [(x[k] as number) - (x[k - 1] as number), (y[k] as number) - (y[k - 1] as number)];
    if (!(dx > 0)) throw new RangeError('x must rise');
    secants.push(dy / dx);
  }
  if (secants.length === 0) return { x, y, slopes: [0], onePassIsEnough: true };
  const slopes = x.map((_, k) => {
    const [before, after] = [secants[k - 1], secants[k]];
    return before === undefined || after === undefined ? ((before ?? after) as number) : (before + after) / 2;
  });
  let passes = 0;
  while (passes < x.length && narrow(slopes, secants)) passes += 1;
  return { x, y, slopes, onePassIsEnough: passes <= 1 };
}

/** One pass, in place. @returns whether a slope changed */
function narrow(slopes: number[], secants: readonly number[]): boolean {
  let changed = false;
  const set = (k: number, slope: number) => {
    const before = slopes[k] as number;
    if (Math.abs(slope - before) > SAME * Math.abs(before)) changed = true;
    slopes[k] = slope;
  };
  for (const [k, secant] of secants.entries()) {
    if (secant === 0) {
      set(k, 0);
      set(k + 1, 0);
      continue;
    }
    const [alpha, beta] = [(slopes[k] as number) / secant, (slopes[k + 1] as number) / secant];
    const [a, b] = [2 * alpha + beta - 3, alpha + 2 * beta - 3];
    if (a > 0 && b > 0 && alpha * (a + b) < a * a) {
      const scale = (3 / Math.hypot(alpha, beta)) * secant;
      set(k, scale * alpha);
      set(k + 1, scale * beta);
    }
  }
  return changed;
}

/** The interval that holds an x within the knots: k for [x_k, x_k+1]. */
export function intervalOf(x: readonly number[], at: number): number {
  let [lo, hi] = [0, x.length - 1];
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if ((x[mid] as number) <= at) lo = mid;
    else hi = mid;
  }
  return lo;
}

/** The cubic of an interval at a part 0…1 of it. */
function hermite({ x, y, slopes }: MonotoneCurve, k: number, part: number): number {
  const [y0, y1, m0, m1] = [y[k] as number, y[k + 1] as number, slopes[k] as number, slopes[k + 1] as number];
  const h = (x[k + 1] as number) - (x[k] as number);
  const [t, u] = [part, 1 - part];
  return y0 * (1 + 2 * t) * u * u + m0 * h * t * u * u + y1 * t * t * (3 - 2 * t) - m1 * h * t * t * u;
}

/** Its slope per part. */
function hermiteSlope({ x, y, slopes }: MonotoneCurve, k: number, t: number): number {
  const h = (x[k + 1] as number) - (x[k] as number);
  const rise = (y[k + 1] as number) - (y[k] as number);
  return 6 * rise * t * (1 - t) + h * ((slopes[k] as number) * (1 - t) * (1 - 3 * t) + (slopes[k + 1] as number) * t * (3 * t - 2));
}

/** y at an x, `null` outside the first and the last knot. */
export function curveAt(curve: MonotoneCurve, at: number): number | null {
  const { x, y } = curve;
  if (at < (x[0] as number) || at > (x.at(-1) as number)) return null;
  const k = intervalOf(x, at);
  const from = x[k] as number;
  if (at === from) return y[k] as number;
  const to = x[k + 1] as number;
  return at === to ? (y[k + 1] as number) : hermite(curve, k, (at - from) / (to - from));
}

/** The first x at which a curve that never falls is at or above a level; `null` below its first and above its last. */
export function firstAt(curve: MonotoneCurve, level: number): number | null {
  const { x, y } = curve;
  if (level < (y[0] as number)) return null;
  const k = y.findIndex((v) => v >= level);
  if (k < 0) return null;
  return k === 0 ? (x[0] as number) : firstWithin(curve, k - 1, level);
}

function firstWithin(curve: MonotoneCurve, k: number, level: number): number {
  const [from, to] = [curve.x[k] as number, curve.x[k + 1] as number];
  // A knot that is the level itself is met there: its slope may be nothing, and rounding would meet it early.
  if (curve.y[k + 1] === level) return to;
  // Newton's steps within a bracket that halves where they would leave it: some six looks instead of sixty.
  let [lo, hi, at] = [0, 1, 0.5];
  for (let i = 0; i < 60 && hi - lo > 1e-15; i++) {
    const off = hermite(curve, k, at) - level;
    if (off >= 0) hi = at;
    else lo = at;
    const slope = hermiteSlope(curve, k, at);
    const next = slope > 0 ? at - off / slope : Number.NaN;
    if (Math.abs(next - at) < 1e-15) return from + next * (to - from);
    at = next > lo && next < hi ? next : (lo + hi) / 2;
  }
  return from + hi * (to - from);
}
