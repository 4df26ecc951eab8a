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

/** The longest session that is priced. Longer nobody charges: a clock was wrong, or a day was typed wrong, and cutting a century at every midnight takes seconds. A choice. */
export const MOST_DAYS = 62;
const MOST_MS = MOST_DAYS * 86_400_000;
export const isTooLong = ({ periods }: ChargedSession): boolean => (periods.at(-1)?.end ?? 0) - (periods[0]?.start ?? 0) > MOST_MS;
