import { randomLcg } from 'd3-random';
import { v7 } from 'uuid';

/** Fixed seed: the demo is the same on every machine. */
export const demoRandom = randomLcg(0.20251014);

export const idFrom = (random: () => number, ms: number): string =>
  v7({ msecs: ms, random: Uint8Array.from({ length: 16 }, () => Math.floor(random() * 256)) });
/** A UUIDv7 from the demo's own randomness. @param ms UTC ms it bears */
export const demoId = (ms: number): string => idFrom(demoRandom, ms);

/** Ids of places and garage have randomness of their own, so that another stall changes no visit. */
const placeRandom = randomLcg(0.4711);
export const placeId = (ms: number): string => idFrom(placeRandom, ms);
