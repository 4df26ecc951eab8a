import { CLEARLY, type Degree, degreeOf, logPairEvidence, PROBABLY } from '../evidence/share-evidence';
import { MOST_ROUNDS } from '../records/trial-schema';

/** Pairs among so many sides: each was not planned by itself, so all of them are counted. */
export const pairsOf = (sides: number): number => (sides * (sides - 1)) / 2;

/** The surest that can be said after so many rounds, were all of them one way. */
export const bestVerdict = (rounds: number, sides: number): Degree => degreeOf(logPairEvidence(rounds, rounds), pairsOf(sides));

/** How many rounds all one way a degree needs: seven of two sides for "clearly", five for "probably"; of four sides ten. */
export function roundsFor(degree: 'clearly' | 'probably', sides: number): number {
  const bar = Math.log(degree === 'clearly' ? CLEARLY : PROBABLY) + Math.log(pairsOf(sides));
  for (let n = 1; n <= MOST_ROUNDS; n++) if (logPairEvidence(n, n) >= bar) return n;
  return MOST_ROUNDS + 1;
}
