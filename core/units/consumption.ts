import { KM_PER_MILE } from './distance';

/** In what consumption is read and typed; it is kept as kWh for 100 km. */
export const CONSUMPTIONS = ['kWh/100 km', 'Wh/km', 'mi/kWh', 'km/kWh'] as const;
export type ConsumptionUnit = (typeof CONSUMPTIONS)[number];

/** Consumption as a number of the unit that it is spoken of in. @param kWhPer100km above 0 */
export function consumptionIn(kWhPer100km: number, unit: ConsumptionUnit): number {
  if (unit === 'kWh/100 km') return kWhPer100km;
  if (unit === 'Wh/km') return kWhPer100km * 10;
  return 100 / kWhPer100km / (unit === 'mi/kWh' ? KM_PER_MILE : 1);
}
/** The same back, kWh for 100 km. @param said above 0 */
export const consumptionFrom = (said: number, unit: ConsumptionUnit): number => (unit === 'Wh/km' ? said / 10 : consumptionIn(said, unit));
