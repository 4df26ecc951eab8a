/** The first and the last of many, and how many lie between: all of them are the first where there are no more than `most`. */
export function endsOf<T>(all: readonly T[], most: number): { first: readonly T[]; between: number; last: readonly T[] } {
  if (all.length <= most) return { first: all, between: 0, last: [] };
  const each = Math.floor(most / 2);
  return { first: all.slice(0, each), between: all.length - 2 * each, last: all.slice(all.length - each) };
}
