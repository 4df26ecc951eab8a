import type { DistanceUnit } from '../units/distance';
import { printDistance, printKW, printKWh } from '../units/print';
import { printTime } from '../units/zoned';
import { bandOf, type RangeBy } from './bands';
import { secondsTo } from './series-at';
import type { SessionPower } from './session-power';

const level = (pct: number): string => String(Number(pct.toFixed(1)));
const minutes = (min: number): string => `${min.toFixed(1)} min`;

/** What was delivered, and in how long; `null` where nobody read the meter or saw the end. */
export function deliveredWords({ delivered_kWh, charging_s }: Pick<SessionPower['series'], 'delivered_kWh' | 'charging_s'>): string | null {
  if (delivered_kWh === null) return null;
  return `Delivered ${printKWh(delivered_kWh)}${charging_s === null ? '' : ` in ${minutes(charging_s / 60)} of charging`}.`;
}

/**
 * What any stretch of the battery took, as far as it was read, and when its end was reached, in words.
 * @param from per cent, below `to`
 */
export function stretchWords(
  { series, at }: Pick<SessionPower, 'series' | 'at'>,
  from: number,
  to: number,
  by: RangeBy,
  { distance, zone }: { distance: DistanceUnit; zone: string },
): string[] {
  const band = bandOf(series, from, to, by);
  const asked = `${level(from)} to ${level(to)} %`;
  if (band.covered === 'none') return [`Of ${asked} nothing was read.`];
  const figures = [
    minutes(band.minutes),
    ...(band.kWh === null ? ['the meter was not read'] : [printKWh(band.kWh)]),
    ...(band.mean_kW === null ? [] : [`${printKW(band.mean_kW)} by the meter`]),
    ...(band.range_km === null ? [] : [printDistance(band.range_km, distance)]),
  ];
  const part = band.covered === 'part' ? `Of ${asked} only ${level(band.coveredFrom)} to ${level(band.coveredTo)} % was read` : asked;
  const reached = secondsTo(series, to);
  return [
    `${part}: ${figures.join(', ')}.`,
    ...(reached === null
      ? []
      : [`${level(to)} % after ${minutes(reached / 60)} of charging, at ${printTime(at + series.clock.momentOf(reached) * 1000, zone)}.`]),
  ];
}
