/** The most a car takes as direct current, kW: its figure, else the top of its curve; `null` where neither is noted. */
export const carDCkW = (car: { maxDCkW: number | null; curve: readonly (readonly [number, number])[] }): number | null =>
  car.maxDCkW ?? (car.curve.length > 0 ? Math.max(...car.curve.map(([, kW]) => kW)) : null);
