import type { Limits } from './limits';

const pct = (x: number) => String(Math.round(x));
/** Per cents beyond its points from which on it is said that a curve is taken as level there: a learnt one stands at the middle of its bands, half of one beyond. A choice. */
const BEYOND_PCT = 5;

/** That a stretch of the battery goes beyond the points of the car's curve, which says nothing there; `null` where it does not, or no curve enters. */
export function beyondCurveWords({ curveFrom, curveTo }: Pick<Limits, 'curveFrom' | 'curveTo'>, from: number, to: number): string | null {
  if (curveFrom === null || curveTo === null || (from > curveFrom - BEYOND_PCT && to < curveTo + BEYOND_PCT)) return null;
  return `The car’s curve is known ${curveFrom === curveTo ? `at ${pct(curveFrom)} %` : `from ${pct(curveFrom)} to ${pct(curveTo)} %`} alone: beyond it is taken as level.`;
}
