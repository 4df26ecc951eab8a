import { firstAt } from './monotone-curve';
import type { Series } from './series';
import { kWhAt } from './series-at';

/** What turns a share of the battery into a way: kWh between 0 and 100 %, and kWh from the battery for 100 km. */
export type RangeBy = { usableKWh: number | null; kWhPer100km: number | null };
export type Covered = 'full' | 'part' | 'none';
export type Band = { fromPct: number; toPct: number } & (
  | { covered: 'none' }
  | {
      covered: 'full' | 'part';
      coveredFrom: number;
      coveredTo: number;
      /** On the charging clock, of the part covered. */
      minutes: number;
      kWh: number | null;
      mean_kW: number | null;
      range_km: number | null;
    }
);

/** Kilometres in a share of the battery; `null` where capacity or consumption is not known. */
export const rangeOf = (pct: number, { usableKWh, kWhPer100km }: RangeBy): number | null =>
  usableKWh === null || kWhPer100km === null || kWhPer100km <= 0 ? null : (pct * usableKWh) / kWhPer100km;

/**
 * What a stretch of the battery took. Its ends must be known, not its inside: 20 to 62 % took its minutes whatever
 * happened between. Ends that are not known move inwards to the nearest level that is, and the band says `part`.
 */
export function bandOf(series: Series, fromPct: number, toPct: number, by: RangeBy): Band {
  const first = series.known.find(([, to]) => to >= fromPct);
  const last = series.known.findLast(([from]) => from <= toPct);
  const coveredFrom = first && Math.max(fromPct, first[0]);
  const coveredTo = last && Math.min(toPct, last[1]);
  if (!series.soc || coveredFrom === undefined || coveredTo === undefined || coveredFrom >= coveredTo) return { fromPct, toPct, covered: 'none' };
  const [start, stop] = [firstAt(series.soc, coveredFrom) as number, firstAt(series.soc, coveredTo) as number];
  const [atStart, atStop] = [kWhAt(series, start), kWhAt(series, stop)];
  const kWh = atStart === null || atStop === null ? null : atStop - atStart;
  return {
    fromPct,
    toPct,
    covered: coveredFrom === fromPct && coveredTo === toPct ? 'full' : 'part',
    coveredFrom,
    coveredTo,
    minutes: (stop - start) / 60,
    kWh,
    mean_kW: kWh === null || stop === start ? null : kWh / ((stop - start) / 3600),
    range_km: rangeOf(coveredTo - coveredFrom, by),
  };
}

/** From the first to the last level read; `null` where fewer than two were. */
export function wholeOf(series: Series, by: RangeBy): Band | null {
  const [first, last] = [series.soc?.y[0], series.soc?.y.at(-1)];
  return first === undefined || last === undefined || first >= last ? null : bandOf(series, first, last, by);
}

/** The tens that overlap what was read, each [from, to]. */
export function tensRead({ soc }: Series): [number, number][] {
  const [first, last] = [soc?.y[0], soc?.y.at(-1)];
  if (first === undefined || last === undefined || first >= last) return [];
  const from = Math.floor(first / 10) * 10;
  return Array.from({ length: Math.ceil((last - from) / 10) }, (_, k) => [from + 10 * k, from + 10 * k + 10]);
}

/** Every ten per cent of the battery that overlaps the readings. */
export const bandsOf = (series: Series, by: RangeBy): Band[] => tensRead(series).map(([from, to]) => bandOf(series, from, to, by));
