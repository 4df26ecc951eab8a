import Big from 'big.js';
import { ROWS_A_STEP, type Steps } from '../units/steps';
import { localDay } from '../units/zoned';
import { fold } from './match-sessions';
import { type SheetWorld, zoneAt } from './sheet-place';
import type { SheetRow } from './sheet-row';
import type { SheetSettings } from './sheet-rules';

/** Starts so near are one session's, told twice. */
const SAME_MS = 10 * 60_000;

/** Rows that may be one session told twice, a row that came first with those that are near it. `day`: of a start of which only that is known. */
type Alike = { first: SheetRow; day: string | null; rows: SheetRow[]; nth: number };
/** Lines of rows that may be one session told twice, in the order of the first of them, in steps: each with those of its place and energy within ten minutes of it, or on its day where only that is told. */
export function* duplicatesOf(rows: readonly SheetRow[], world: SheetWorld, settings: SheetSettings): Steps<number[][]> {
  const dayOf = (r: SheetRow) => localDay(r.start, zoneAt(world, r.site) ?? settings.zone);
  const anyDay = rows.some((r) => r.startPrecision === 'day');
  const groups: Alike[] = [];
  /** By place, energy and either the stretch of time or the day in which the first of them lies. */
  const lying = new Map<string, Alike[]>();
  const near = (key: string) => lying.get(key) ?? [];
  for (const [i, r] of rows.entries()) {
    if (i % ROWS_A_STEP === 0) yield;
    if (r.kWh === null || new Big(r.kWh).lte(0)) continue;
    const alike = `${fold(r.site)}\n${r.kWh}`;
    const day = anyDay ? dayOf(r) : '';
    const onDay = r.startPrecision === 'day';
    const stretch = Math.floor(r.start / SAME_MS);
    const candidates = [
      ...near(`${alike}\n${day}`).filter((g) => onDay || g.day !== null),
      ...(onDay ? [] : [-1, 0, 1].flatMap((off) => near(`${alike}\n${stretch + off}`)).filter((g) => Math.abs(g.first.start - r.start) <= SAME_MS)),
    ];
    const group = candidates.reduce<Alike | null>((least, g) => (least === null || g.nth < least.nth ? g : least), null);
    if (group) {
      group.rows.push(r);
      continue;
    }
    const made = { first: r, day: onDay ? day : null, rows: [r], nth: groups.length };
    groups.push(made);
    for (const key of [...(anyDay ? [`${alike}\n${day}`] : []), ...(onDay ? [] : [`${alike}\n${stretch}`])]) lying.set(key, [...near(key), made]);
  }
  return groups.filter((g) => g.rows.length > 1).map((g) => g.rows.map((r) => r.line));
}
