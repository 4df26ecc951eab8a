/** A label wanted at x; `row` 0 is nearest the tape. */
export type PlacedLabel = { text: string; x: number; row: number; anchor: 'start' | 'end' };

/**
 * Puts labels above a tape in at most `rows` rows so that none overlap; those that find no place are left out.
 * Widths are estimated from the length of the text, which errs wide for the type in use.
 * @param labels in order of x @param width of the tape, px
 */
export function placeLabels(labels: readonly { text: string; x: number }[], width: number, rows: number, charPx = 6.6): PlacedLabel[] {
  const ends = Array<number>(rows).fill(Number.NEGATIVE_INFINITY);
  const out: PlacedLabel[] = [];
  for (const l of labels) {
    const w = l.text.length * charPx + 8;
    const anchor = l.x + w > width ? 'end' : 'start';
    const left = anchor === 'start' ? l.x : l.x - w;
    const row = ends.findIndex((end) => end <= left);
    if (row < 0) continue;
    ends[row] = left + w;
    out.push({ text: l.text, x: l.x, row, anchor });
  }
  return out;
}
