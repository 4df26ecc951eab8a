/** A plain price for advice: what the next minutes and kWh cost. The tariff engine prices the bill. Money as numbers, not rounded. */
export type SimplePrice = {
  perKWh?: number | undefined;
  perMin?: number | undefined;
  sessionFee?: number | undefined;
  /** Fees that begin once connected longer than so many minutes: by the minute, or flat. */
  after?: readonly { afterMin: number; perMin?: number | undefined; flat?: number | undefined }[] | undefined;
  idlePerMin?: number | undefined;
  idleGraceMin?: number | undefined;
};

const SLACK = 1e-9;

/** What staying connected from one minute to another costs beyond energy and charging minutes. A flat fee falls due where its mark is passed. */
export function feesBetween(price: SimplePrice, start_min: number, end_min: number): number {
  return (price.after ?? []).reduce((sum, { afterMin, perMin = 0, flat = 0 }) => {
    const beyond = Math.max(0, end_min - Math.max(start_min, afterMin));
    const passes = start_min <= afterMin + SLACK && end_min > afterMin + SLACK;
    return sum + perMin * beyond + (passes ? flat : 0);
  }, 0);
}

/** Energy, charging minutes, and the fees of these connected minutes. */
export const chargeCost = (price: SimplePrice, kWh: number, minutes: number, connected_min: number): number =>
  (price.perKWh ?? 0) * kWh + (price.perMin ?? 0) * minutes + feesBetween(price, connected_min, connected_min + minutes);
