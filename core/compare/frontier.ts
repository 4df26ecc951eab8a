import type { ComparedGroup } from './compared-groups';

/** Fewer visits than these say too little of either. */
export const LEAST_VISITS = 5;

/** A group by what it is compared: the share of starts at the first try, the price per kWh with fees. */
export type Held = { row: ComparedGroup; share: number; perKWh: number };

/** The groups of which both are known, from some visits on. */
export const heldTogether = (rows: readonly ComparedGroup[]): Held[] =>
  rows.flatMap((row): Held[] => {
    const { firstTry, allIn } = row.cells;
    if (!firstTry || !allIn?.perKWh.known || firstTry.yes + firstTry.no < LEAST_VISITS || allIn.n < LEAST_VISITS) return [];
    return [{ row, share: firstTry.yes / (firstTry.yes + firstTry.no), perKWh: Number(allIn.perKWh.value) }];
  });

/**
 * Those than which no other is both as reliable and as cheap, and better in one: whoever wants more of the one pays with the other. The most reliable first.
 * As counted: whether two shares are told apart is said by the sentences.
 */
export const frontier = (held: readonly Held[]): Held[] =>
  held
    .filter((a) => !held.some((b) => b.share >= a.share && b.perKWh <= a.perKWh && (b.share > a.share || b.perKWh < a.perKWh)))
    .sort((a, b) => b.share - a.share || a.perKWh - b.perKWh);

/**
 * In a sentence, with what a stop was like at each: two prices are of the same only beside the same stops.
 * @returns `null` where fewer than two can be held against each other
 */
export function frontierSentence(
  rows: readonly ComparedGroup[],
  nameOf: (row: ComparedGroup) => string,
  say: { share: (n: number) => string; perKWh: (n: number) => string; kWh: (n: number) => string },
): string | null {
  const held = heldTogether(rows);
  if (held.length < 2) return null;
  const best = frontier(held);
  const told = best.map((h) => {
    const { stop } = h.row.cells.allIn ?? { stop: null };
    return `${nameOf(h.row)} (${say.share(h.share)}, ${say.perKWh(h.perKWh)}${stop ? `, stops of ${say.kWh(stop.kWh)}` : ''})`;
  });
  const list = told.length === 1 ? told[0] : `${told.slice(0, -1).join(', ')} and ${told.at(-1)}`;
  return `Reliable or cheap, as counted: each of the others is no surer to start and no cheaper than one of these: ${list}.`;
}
