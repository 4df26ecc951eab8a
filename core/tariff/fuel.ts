import type { FuelUnit } from '../records/types/otherprice';
import { KM_PER_MILE } from '../units/distance';

/** Litres of what fuel is sold by. The gallons are exact: NIST SP 811 (2008), appendix B.8, 4.546 09 and 3.785 411 784 (231 cubic inches); from memory. */
export const LITRES: Readonly<Record<FuelUnit, number>> = { litre: 1, imperial: 4.54609, us: 3.785411784 };

/** Fuel at the pump, and what a car needs of it: litres per 100 km, or miles per gallon where it is sold by gallons. */
export type Fuel = { price: number; unit: FuelUnit; needs: number };

/** How much of what it is sold by a car needs for 100 km. */
const unitsPer100km = ({ unit, needs }: Fuel): number => (unit === 'litre' ? needs : 100 / KM_PER_MILE / needs);

/** What 100 km cost on fuel. */
export const fuelPer100km = (f: Fuel): number => f.price * unitsPer100km(f);

/** The pump price at which 100 km on that fuel cost as much. @param per100km what they cost otherwise */
export const breakEvenPump = (per100km: number, f: Fuel): number => per100km / unitsPer100km(f);

/** What a car would have to need of that fuel to drive for the same money, as its pump's country says it. @returns infinite miles per gallon for what costs nothing */
export const equivalentNeed = (per100km: number, f: Fuel): number => {
  const units = per100km / f.price;
  return f.unit === 'litre' ? units : 100 / KM_PER_MILE / units;
};

/** How need is said where fuel is sold so. */
export const needWords = (needs: number, unit: FuelUnit): string => `${needs.toFixed(1)} ${unit === 'litre' ? 'l/100 km' : 'mi/gal'}`;
