import { randomInt } from 'node:crypto';

/** A seed that nobody chose, from 1 to the greatest. */
export const drawSeed = (most: number): number => randomInt(1, most + 1);
