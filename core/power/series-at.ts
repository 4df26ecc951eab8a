import { curveAt, firstAt, intervalOf, type MonotoneCurve } from './monotone-curve';
import { type Series, within } from './series';

export type PowerHow = 'read' | 'VxA' | 'between' | 'meter' | 'paused' | 'not_read';
export type SeriesMoment = { socPct: number | null; kWh: number | null; kW: number | null; how: PowerHow };

const gapAt = (curve: MonotoneCurve, s: number, of: readonly number[]): number => {
  const k = intervalOf(curve.x, s);
  const strictly = s > (curve.x[k] as number) && s < (curve.x[k + 1] as number);
  return strictly ? (of[k + 1] as number) - (of[k] as number) : 0;
};
/** Battery per cent after so many charging seconds; `null` where nobody looked for too long. */
export const socAt = ({ soc, gaps }: Series, s: number): number | null => (!soc || !within(gapAt(soc, s, soc.y), gaps.soc_pct) ? null : curveAt(soc, s));
/** Metered kWh after so many charging seconds. */
export const kWhAt = ({ kWh, gaps }: Series, s: number): number | null => (within(gapAt(kWh, s, kWh.x), gaps.kWh_s) ? curveAt(kWh, s) : null);

/** The first reading at or after a moment; their number where there is none. */
function firstFrom(power: Series['power'], s: number): number {
  let [lo, hi] = [0, power.length];
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if ((power[mid] as Series['power'][number]).s >= s) hi = mid;
    else lo = mid + 1;
  }
  return lo;
}

/** Power after so many charging seconds: read, between two readings close enough, else by the meter. */
function powerAt({ power, kWh, gaps }: Series, s: number): Pick<SeriesMoment, 'kW' | 'how'> {
  const next = firstFrom(power, s);
  const [before, after] = [power[next - 1], power[next]];
  if (after?.s === s) return { kW: after.kW, how: after.how };
  if (before && after && within(after.s - before.s, gaps.kW_s)) {
    const part = (s - before.s) / (after.s - before.s);
    return { kW: before.kW + part * (after.kW - before.kW), how: 'between' };
  }
  if (kWh.x.length < 2 || s > (kWh.x.at(-1) as number)) return { kW: null, how: 'not_read' };
  const k = intervalOf(kWh.x, s);
  const span = (kWh.x[k + 1] as number) - (kWh.x[k] as number);
  return within(span, gaps.kWh_s) ? { kW: ((kWh.y[k + 1] as number) - (kWh.y[k] as number)) / (span / 3600), how: 'meter' } : { kW: null, how: 'not_read' };
}

/** What is known of a moment, seconds from the proof of power by the wall clock. */
export function seriesAt(series: Series, t_s: number): SeriesMoment {
  const { clock, end_t_s } = series;
  const s = clock.charged(t_s);
  if (t_s < 0 || (end_t_s !== null && t_s > end_t_s)) return { socPct: null, kWh: null, kW: null, how: 'not_read' };
  const power = clock.pausedAt(t_s) ? { kW: 0, how: 'paused' as const } : powerAt(series, s);
  return { socPct: socAt(series, s), kWh: kWhAt(series, s), ...power };
}

/** Charging seconds until a level is first reached; `null` where it is not known. */
export function secondsTo(series: Series, socPct: number): number | null {
  return series.soc && series.known.some(([from, to]) => from <= socPct && socPct <= to) ? firstAt(series.soc, socPct) : null;
}
