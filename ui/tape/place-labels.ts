/** A label wanted at x; `row` 0 is nearest the tape. */
export type PlacedLabel = { text: string; x: number; row: number; anchor: 'start' | 'end' };

type Wanted = { text: string; x: number };

/**
 * Puts labels above a tape in at most `rows` rows so that no text overlaps another and no stem crosses a text:
 * in a crowd the outermost label stands highest, the next below it, as stairs. What finds no place is left out.
 * Widths are estimated from the length of the text, which errs wide for the type in use.
 * @param labels in order of x @param width of the tape, px
 */
export function placeLabels(labels: readonly Wanted[], width: number, rows: number, charPx = 6.6): PlacedLabel[] {
  const widthOf = (l: Wanted) => l.text.length * charPx + 10;
  const fromLeft = labels.filter((l) => l.x + widthOf(l) <= width);
  const fromRight = labels.filter((l) => l.x + widthOf(l) > width).reverse();
  const left = stairs(fromLeft, rows, widthOf).map((l): PlacedLabel => ({ ...l, anchor: 'start' }));
  const right = stairs(
    fromRight.map((l) => ({ text: l.text, x: width - l.x })),
    rows,
    widthOf,
  ).map((l): PlacedLabel => ({ ...l, x: width - l.x, anchor: 'end' }));
  const extent = (l: PlacedLabel): [number, number] => (l.anchor === 'start' ? [l.x, l.x + widthOf(l)] : [l.x - widthOf(l), l.x]);
  const placed = [...left];
  for (const l of right) {
    // Where the two crowds meet, the one at the edge steps up, as far as there is room.
    const free = (row: number) => placed.every((o) => o.row !== row || extent(o)[1] <= extent(l)[0] || extent(l)[1] <= extent(o)[0]);
    const row = Array.from({ length: rows - l.row }, (_, k) => l.row + k).find(free);
    if (row !== undefined) placed.push({ ...l, row });
  }
  return placed;
}

/** Text runs to the right of x; later labels under the text of an earlier one stand lower. */
function stairs(labels: readonly Wanted[], rows: number, widthOf: (l: Wanted) => number): { text: string; x: number; row: number }[] {
  const placed: { text: string; x: number; row: number }[] = [];
  for (const [i, l] of labels.entries()) {
    const above = placed.filter((p) => p.x + widthOf(p) > l.x).map((p) => p.row);
    const ceiling = above.length > 0 ? Math.min(...above) - 1 : rows - 1;
    if (ceiling < 0) continue;
    // As many steps as there are labels crowding under this one, counted along the crowd.
    let crowd = 0;
    let reach = l.x + widthOf(l);
    for (let j = i + 1; j < labels.length && (labels[j] as Wanted).x < reach && crowd < ceiling; j++) {
      crowd += 1;
      reach = Math.max(reach, (labels[j] as Wanted).x + widthOf(labels[j] as Wanted));
    }
    placed.push({ ...l, row: crowd });
  }
  return placed;
}
