/** Mid-ranks of some values, in their order, and Σ (t³ − t) over the groups of ties. */
export function midRanks(values: readonly number[]): { ranks: number[]; ties: number } {
  const order = values.map((_, i) => i).sort((a, b) => (values[a] as number) - (values[b] as number));
  const ranks = values.map(() => 0);
  let ties = 0;
  for (let i = 0; i < order.length; ) {
    let j = i;
    while (j < order.length && values[order[j] as number] === values[order[i] as number]) j++;
    for (let k = i; k < j; k++) ranks[order[k] as number] = (i + j + 1) / 2;
    ties += (j - i) ** 3 - (j - i);
    i = j;
  }
  return { ranks, ties };
}

/** The smallest value whose chance of being reached or undercut is at least p. */
export function discreteQuantile(chances: readonly number[], p: number): number {
  let sum = 0;
  for (const [value, chance] of chances.entries()) {
    sum += chance;
    if (sum >= p - 1e-14) return value;
  }
  return chances.length - 1;
}

/** Chance of at most so much. */
export const atMost = (chances: readonly number[], value: number): number => chances.slice(0, Math.max(0, value + 1)).reduce((a, b) => a + b, 0);

/** The middle of sorted values. @throws nothing; NaN of none */
export function middle(sorted: ArrayLike<number>): number {
  const n = sorted.length;
  return ((sorted[Math.floor((n - 1) / 2)] as number) + (sorted[Math.ceil((n - 1) / 2)] as number)) / 2;
}
