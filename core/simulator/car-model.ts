import { scaleLinear } from 'd3-scale';

/** A simulated car: what it takes at which level. Invented figures belong to the demo, not here. */
export type CarModel = {
  usableKWh: number;
  /** Highest DC power by battery level, [%, kW], rising in level. */
  curve: readonly (readonly [number, number])[];
};

/** Power the car would take by itself, kW. @param socPct 0…100 @param factor below 1 when the battery is cold */
export function carPower(car: CarModel, socPct: number, factor = 1): number {
  const at = scaleLinear()
    .domain(car.curve.map(([s]) => s))
    .range(car.curve.map(([, kW]) => kW))
    .clamp(true);
  return at(socPct) * factor;
}
