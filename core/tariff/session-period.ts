/** A stretch of a session in which nothing changes: UTC ms, kWh spread evenly over it, mean kW and A, occupancy of the site from 0 to 1. */
export type Period = {
  start: number;
  end: number;
  kwh: number;
  charging: boolean;
  power: number | null;
  current: number | null;
  occupancy: number;
};
/** A period of which no more is known than how much came when. @param occupancy of the site, 0 to 1 */
export const plainPeriod = (start: number, end: number, charging: boolean, kwh: number, occupancy = 0): Period => ({
  start,
  end,
  kwh,
  charging,
  power: null,
  current: null,
  occupancy,
});
/** A session as it is priced. */
export type ChargedSession = { zone: string; periods: readonly Period[] };
