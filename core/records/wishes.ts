import type { ConsumptionUnit } from '../units/consumption';

export const DISTANCES = { km: 'Kilometres', mi: 'Miles' } as const;

/** What a person wishes for, on every device of theirs. */
export type Wishes = {
  distance: keyof typeof DISTANCES;
  consumption: ConsumptionUnit;
  /** Called before the one that a place's zone proposes, never before one noted at the site. */
  emergencyNumber: string | null;
  /** Where a photo was taken is written beside it without being asked for each time. */
  photoPosition: boolean;
  /** The stop that prices are compared for unless another is asked, as its address; `null`: the one that the ledger proposes. */
  usualStop: string | null;
};
export const NO_WISHES: Wishes = { distance: 'km', consumption: 'kWh/100 km', emergencyNumber: null, photoPosition: false, usualStop: null };
