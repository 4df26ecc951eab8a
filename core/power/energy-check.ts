import { type Series, within } from './series';
import { kWhAt } from './series-at';

/** Two steps of a display, and what rounding and a curve between readings may make. */
const SLACK = { kWh: 0.2, share: 0.05 };

export type EnergyCheck = { covered_s: number; integral_kWh: number; meter_kWh: number; difference_kWh: number; allowed_kWh: number; flag: boolean };

/**
 * Whether the power shown makes the energy metered: the trapezoid of kW between neighbouring power readings against
 * the meter's difference there. A screen that shows its whole cabinet's power fails it.
 * @returns `null` where no two readings close enough have the meter at both
 */
export function energyCheck(series: Series): EnergyCheck | null {
  let [covered_s, integral_kWh, meter_kWh] = [0, 0, 0];
  for (const [i, a] of series.power.entries()) {
    const b = series.power[i + 1];
    if (!b || !within(b.s - a.s, series.gaps.kW_s)) continue;
    const [from, to] = [kWhAt(series, a.s), kWhAt(series, b.s)];
    if (from === null || to === null) continue;
    covered_s += b.s - a.s;
    integral_kWh += ((a.kW + b.kW) / 2) * ((b.s - a.s) / 3600);
    meter_kWh += to - from;
  }
  if (covered_s === 0) return null;
  const difference_kWh = integral_kWh - meter_kWh;
  const allowed_kWh = Math.max(SLACK.kWh, SLACK.share * meter_kWh);
  return { covered_s, integral_kWh, meter_kWh, difference_kWh, allowed_kWh, flag: !within(Math.abs(difference_kWh), allowed_kWh) };
}
