import { randomLcg } from 'd3-random';
import { v7 } from 'uuid';

/** Fixed seed: the demo is the same on every machine. */
export const demoRandom = randomLcg(0.20251014);

/** A UUIDv7 from the demo's own randomness. @param ms UTC ms it bears */
export const demoId = (ms: number): string => v7({ msecs: ms, random: Uint8Array.from({ length: 16 }, () => Math.floor(demoRandom() * 256)) });
