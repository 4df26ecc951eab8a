/** Shorter ways and smaller shares of the battery say too little: whole per cents and kilometres. */
const LEAST = { km: 15, pct: 5 };
/** Beyond these a figure was mistyped, or the car was charged between. kWh/100 km. */
const BELIEVED = { low: 6, high: 80 };

export type CarState = { odometerKm: number; socPct: number };

/**
 * What a car used from its last stop to here, kWh from the battery for 100 km: Δ% × usable kWh ÷ km.
 * @returns `null` where the way was too short, or the figures cannot be of one drive
 */
export function usedOnTheWay(left: CarState, arrived: CarState, usableKWh: number): number | null {
  const [km, pct] = [arrived.odometerKm - left.odometerKm, left.socPct - arrived.socPct];
  if (km < LEAST.km || pct < LEAST.pct) return null;
  const used = (usableKWh * pct) / km;
  return used >= BELIEVED.low && used <= BELIEVED.high ? used : null;
}
