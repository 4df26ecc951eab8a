/** One site as the list of Places shows it. */
export type SiteRow = {
  id: string;
  name: string;
  networkName: string;
  latitude: number | null;
  longitude: number | null;
  archived: boolean;
  stalls: number;
  /** The greatest kW on any of its plates, `null` without stalls. */
  mostKW: number | null;
  visits: number;
  firstYes: number;
  firstNo: number;
  /** UTC ms of the last visit. */
  lastAt: number | null;
  zone: string;
  /** Stalls at which danger was reported and not cleared. */
  dangers: number;
  /** The price per kWh of today, as noted, and the day from which it holds. */
  price: { perKWh: string; currency: string; since: string } | null;
  /** For the car that was asked about: at most so many kW at its best usable stall; `null` when none can be used. */
  fitsKW?: number | null;
};
