import { sumOf } from '../units/sum';

/** kWh in the battery for one by the meter, where a household has no figures of its own: common practice, no source. An AC meter sits before the onboard charger. */
export const USUAL_YIELD = { ac: 0.9, dc: 0.95 } as const;
export type Current = keyof typeof USUAL_YIELD;
export type Yields = Readonly<Record<Current, { of: number; own: boolean; n: number }>>;

/** A charge that was billed. `rise`: between two readings that say both, what came into the battery by its levels and what the meter counted, kWh; where they rose far enough to tell. */
export type BilledCharge = {
  group: string;
  current: Current;
  paid: string;
  kWh: string;
  rise: { battery: number; meter: number } | null;
  visit_s: number | null;
  hour: number | null;
};

/** Levels are whole per cents: under this rise they say too little of a loss. */
const LEAST_RISE_PCT = 20;
const LEAST_CHARGES = 3;
/** Beyond these the levels or the meter were misread. */
const BELIEVED = { low: 0.7, high: 1.02 };

/** What of the metered energy came into the battery: total over total of the own charges that can tell, else what is usual. */
export function yieldsOf(charges: readonly BilledCharge[]): Yields {
  const of = (current: Current) => {
    const told = charges.flatMap((c) => (c.current === current && c.rise !== null && c.rise.meter > 0 ? [c.rise] : []));
    const own = told.reduce((s, r) => s + r.battery, 0) / told.reduce((s, r) => s + r.meter, 0);
    return told.length >= LEAST_CHARGES && own >= BELIEVED.low && own <= BELIEVED.high
      ? { of: Math.min(1, own), own: true, n: told.length }
      : { of: USUAL_YIELD[current], own: false, n: told.length };
  };
  return { ac: of('ac'), dc: of('dc') };
}

/** What charging came to, total over total. Per kWh by the meter and in the battery; per 100 km by what the car uses of its battery; with the time at the site, where an hour has a price. */
export type AllIn = {
  visits: number;
  kWh: number;
  paid: number;
  perKWh: number;
  perBatteryKWh: number;
  per100km: number | null;
  /** The middle of the stops: two prices are of the same only beside the same stops. */
  stop: { kWh: number; hour: number | null };
  /** Of the visits whose length is known: hours, and 100 km with them paid for. */
  time: { hours: number; visits: number; per100km: number | null };
};

const middle = (values: readonly number[]): number | null => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor((sorted.length - 1) / 2)] ?? null;
};

/**
 * @param kWhPer100km from the battery; `null`: not noted @param hour what an hour at the site costs; `null`: nothing was said
 * @returns `null` where nothing was delivered
 */
export function allInOf(charges: readonly BilledCharge[], yields: Yields, kWhPer100km: number | null, hour: number | null): AllIn | null {
  const kWh = Number(sumOf(charges.map((c) => c.kWh)));
  if (kWh <= 0) return null;
  const paid = Number(sumOf(charges.map((c) => c.paid)));
  const inBattery = (all: readonly BilledCharge[]) => all.reduce((s, c) => s + Number(c.kWh) * yields[c.current].of, 0);
  const perBatteryKWh = paid / inBattery(charges);
  const timed = charges.filter((c) => c.visit_s !== null);
  const hours = timed.reduce((s, c) => s + (c.visit_s as number), 0) / 3600;
  const timedBattery = inBattery(timed);
  const withTime =
    hour !== null && kWhPer100km !== null && timedBattery > 0 ? ((Number(sumOf(timed.map((c) => c.paid))) + hours * hour) / timedBattery) * kWhPer100km : null;
  return {
    visits: charges.length,
    kWh,
    paid,
    perKWh: paid / kWh,
    perBatteryKWh,
    per100km: kWhPer100km === null ? null : perBatteryKWh * kWhPer100km,
    stop: { kWh: middle(charges.map((c) => Number(c.kWh))) ?? 0, hour: middle(charges.flatMap((c) => (c.hour === null ? [] : [c.hour]))) },
    time: { hours, visits: timed.length, per100km: withTime },
  };
}

/** 100 km on what is charged at home: the meter at home is an AC meter. */
export const homePer100km = (perKWh: number, yields: Yields, kWhPer100km: number): number => (perKWh / yields.ac.of) * kWhPer100km;

/**
 * What the car uses, from the ledger's own drives where they can tell: total over total of the ways between two stops with both levels and odometers.
 * @param used kWh per 100 km with its km, of each way
 */
export function measuredUse(ways: readonly { kWhPer100km: number; km: number }[]): { kWhPer100km: number; km: number; n: number } | null {
  const km = ways.reduce((s, w) => s + w.km, 0);
  if (ways.length < LEAST_CHARGES) return null;
  return { kWhPer100km: ways.reduce((s, w) => s + w.kWhPer100km * w.km, 0) / km, km, n: ways.length };
}

/**
 * What came into the battery between the first and the last reading of a session that say both its level and the meter.
 * @param usableKWh of the car @returns `null` where the level rose too little to tell
 */
export function riseOf(readings: readonly { socPct?: number | undefined; kWh?: string | undefined }[], usableKWh: number): BilledCharge['rise'] {
  const both = readings.flatMap((r) => (r.socPct !== undefined && r.kWh !== undefined ? [{ pct: r.socPct, kWh: Number(r.kWh) }] : []));
  const [first, last] = [both[0], both.at(-1)];
  if (!first || !last || last.pct - first.pct < LEAST_RISE_PCT) return null;
  return { battery: (usableKWh * (last.pct - first.pct)) / 100, meter: last.kWh - first.kWh };
}
