import { type RangeBy, rangeOf } from './bands';
import { type Battery, expectedStretch } from './expected';
import type { Limits } from './limits';

/** What the next stretch to a ten takes and gives; `minutes` is `null` in a last row that never ends. */
export type NextTen = {
  from: number;
  to: number;
  minutes: number | null;
  mean_kW: number | null;
  meter_kWh: number;
  money: number | null;
  range_km: number | null;
  range_km_per_min: number | null;
  money_per_100km: number | null;
  minutesSoFar: number | null;
  moneySoFar: number | null;
};
export type Now = { socPct: number; connected_min?: number | undefined };
/** Cost of a stretch: kWh and minutes from a connected minute on, with what has come since now. `null` where no price is known. */
export type CostOf = ((kWh: number, minutes: number, connected_min: number, sinceNow: { min: number; kWh: number }) => number) | null;

/** One row to each ten above now. @param cost what the pricing at hand says */
export function nextTens(limits: Limits, battery: Battery, now: Now, cost: CostOf, by: RangeBy): NextTen[] {
  const rows: NextTen[] = [];
  let [from, minutesSoFar, moneySoFar, kWhSoFar] = [now.socPct, 0, 0, 0];
  for (let to = Math.floor(now.socPct / 10) * 10 + 10; to <= 100; to += 10) {
    const { minutes, mean_kW, meter_kWh } = expectedStretch(limits, from, to, battery);
    const range_km = rangeOf(to - from, by);
    const money = minutes === null || !cost ? null : cost(meter_kWh, minutes, (now.connected_min ?? 0) + minutesSoFar, { min: minutesSoFar, kWh: kWhSoFar });
    minutesSoFar += minutes ?? 0;
    moneySoFar += money ?? 0;
    kWhSoFar += meter_kWh;
    rows.push({
      from,
      to,
      minutes,
      mean_kW,
      meter_kWh,
      money,
      range_km,
      range_km_per_min: range_km === null || !minutes ? null : range_km / minutes,
      money_per_100km: money === null || !range_km ? null : (money / range_km) * 100,
      minutesSoFar: minutes === null ? null : minutesSoFar,
      moneySoFar: money === null ? null : moneySoFar,
    });
    if (minutes === null) break;
    from = to;
  }
  return rows;
}
