import { printKWh } from '../units/print';
import type { Series, SeriesReading } from './series';

/** So many levels of the other screen are named, the first and the last of them. */
const NAMED = 6;
const level = (pct: number): string => `${Number(pct.toFixed(1))}`;

/** What of the readings of a charge entered none of its curves, and why, in words: a slip is told with its figure, and so is the other screen. */
export function leftOutWords(readings: readonly SeriesReading[], { wentDown, source }: Pick<Series, 'wentDown' | 'source'>): string[] {
  const figures = [
    ...wentDown.soc.flatMap((at) => (at === 'end' ? [] : [`${level(readings[at]?.socPct ?? Number.NaN)} %`])),
    ...wentDown.kWh.map((at) => (at === 'end' ? 'the meter’s end' : printKWh(readings[at]?.kWh ?? Number.NaN))),
  ];
  const other = source.soc === 'stall' ? 'car' : 'stall';
  const beside = readings.flatMap((r) => (r.from === other && r.socPct !== undefined ? [level(r.socPct)] : []));
  const named = beside.length > NAMED ? [...beside.slice(0, NAMED - 1), '…', beside.at(-1)] : beside;
  return [
    ...(figures.length > 0 ? [`Left out, since they do not fit the figures around them: ${figures.join(', ')}.`] : []),
    ...(source.soc !== null && beside.length > 0 ? [`Not mixed in: ${named.join(', ')} % on the ${other}’s screen; one screen is taken for the whole.`] : []),
  ];
}
