import { type CarModel, carPower } from './car-model';

export type ChargeSample = { t_s: number; socPct: number; kW: number; kWh: number };
export type ChargeLimits = {
  /** What the stall gives alone, kW. */
  stallKW: number;
  /** From this second on another car shares the cabinet and this much is left, kW. */
  shared?: { from_s: number; kW: number };
  /** Below 1 when the battery is cold. */
  factor?: number;
  /** Part of the metered energy that does not reach the battery, 0…1. */
  loss?: number;
};

const STEP_S = 5;
const RAMP_S = 20;
/** A charge that comes to nothing must still end. */
const LONGEST_S = 6 * 3600;

/**
 * Simulates a charge from one level to another in steps of five seconds: the least of car and stall, after a ramp.
 * @returns samples from 0 s on; the last one at the level reached
 */
export function simulateCharge(car: CarModel, fromPct: number, toPct: number, limits: ChargeLimits): ChargeSample[] {
  const samples: ChargeSample[] = [];
  let socPct = fromPct;
  let kWh = 0;
  const loss = limits.loss ?? 0.05;
  for (let t_s = 0; t_s <= LONGEST_S; t_s += STEP_S) {
    const limit = limits.shared && t_s >= limits.shared.from_s ? Math.min(limits.stallKW, limits.shared.kW) : limits.stallKW;
    const kW = Math.min(carPower(car, socPct, limits.factor), limit) * Math.min(1, (t_s + STEP_S) / RAMP_S);
    samples.push({ t_s, socPct, kW, kWh });
    if (socPct >= toPct) break;
    const step = (kW * STEP_S) / 3600;
    kWh += step;
    socPct += (step * (1 - loss) * 100) / car.usableKWh;
  }
  return samples;
}

/** Samples at which a driver would look: soon after the start, at each ten per cent, and the last. */
export function samplesWorthReading(samples: readonly ChargeSample[]): ChargeSample[] {
  const out: ChargeSample[] = [];
  let next = Math.ceil(((samples[0]?.socPct ?? 0) + 1) / 10) * 10;
  for (const [i, s] of samples.entries()) {
    if (i === samples.length - 1) out.push(s);
    else if (s.t_s === 40) out.push(s);
    else if (s.socPct >= next) {
      out.push(s);
      next += 10;
    }
  }
  return out;
}
