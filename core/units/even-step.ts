/** Steps in which a clock is told along an axis, minutes. */
export const MINUTE_STEPS: readonly number[] = [1, 2, 5, 10, 15, 30, 60, 120, 240, 720, 1440];

/**
 * The first of some steps of which no more than so many fit into a span; beyond the last of them, doubled until they do: one
 * mistyped figure or date makes an axis long, and never one of thousands of lines.
 * @param most one at least: less, as where nothing is as wide as a label, counts as one
 * @param steps rising, at least one
 */
export function evenStep(span: number, most: number, steps: readonly number[]): number {
  const fit = Math.max(1, most);
  let step = steps.find((s) => span / s <= fit) ?? (steps.at(-1) as number);
  while (span / step > fit) step *= 2;
  return step;
}
