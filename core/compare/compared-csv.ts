import { csvFormatRows } from 'd3-dsv';
import type { Asked } from '../figures/populations';
import { csvText } from '../units/csv-text';
import type { Cell } from './cells';
import type { ComparedGroup } from './compared-groups';
import { onlyVisits } from './filter-words';
import { MEASURES, type Measure } from './measures';

type Column = [head: string, value: string | number | null];
const known = <T>(m: { known: true; value: T } | { known: false; why: string }): T | null => (m.known ? m.value : null);
const share = (yes: number, no: number) => (yes + no > 0 ? yes / (yes + no) : null);

/** A cell as columns; what is not known is empty. */
function columns(head: string, c: Cell): Column[] {
  switch (c.is) {
    case 'share':
      return [
        [`${head}: yes`, c.yes],
        [`${head}: of`, c.yes + c.no],
        [`${head}: share`, share(c.yes, c.no)],
        [`${head}: 95 % from`, c.interval?.[0] ?? null],
        [`${head}: 95 % to`, c.interval?.[1] ?? null],
        [`${head}: left out`, c.leftOut],
        ...(c.without
          ? ([
              [`${head} without the ${c.without.side}'s: yes`, c.without.yes],
              [`${head} without the ${c.without.side}'s: of`, c.without.yes + c.without.no],
            ] satisfies Column[])
          : []),
      ];
    case 'bays':
      return [
        [`${head}: bays`, c.yes],
        [`${head}: of bays`, c.yes + c.no],
        [`${head}: looks`, c.looks],
        [`${head}: 95 % from`, c.interval?.[0] ?? null],
        [`${head}: 95 % to`, c.interval?.[1] ?? null],
      ];
    case 'wait':
      return [
        [`${head}: timed`, c.timed],
        [`${head}: never`, c.never],
        [`${head}: left out`, c.leftOut],
        [`${head}: median s`, known(c.median)],
        [`${head}: quarter s`, c.quarters?.[0] ?? null],
        [`${head}: three quarters s`, c.quarters?.[1] ?? null],
      ];
    case 'times':
      return [
        [`${head}: n`, c.n],
        [`${head}: median s`, known(c.median)],
        [`${head}: quarter s`, c.quarters?.[0] ?? null],
        [`${head}: three quarters s`, c.quarters?.[1] ?? null],
      ];
    case 'mean':
      return [
        [`${head}: n`, c.n],
        [`${head}: mean s`, known(c.mean)],
      ];
    case 'rate':
      return [
        [`${head}: count`, c.count],
        [`${head}: ${c.of}`, c.per],
        [`${head}: per 100 ${c.of === 'hours' ? 'h' : c.of}`, known(c.rate)],
        [`${head}: which`, c.parts.map(([name, n]) => `${name} ${n}`).join('; ')],
      ];
    case 'price':
      return [
        [`${head}: visits`, c.n],
        [`${head}: ${c.currency} per kWh`, known(c.perKWh)],
        [`${head}: bills off`, c.bills.off],
        [`${head}: bills checked`, c.bills.checked],
        [`${head}: kWh of a stop, median`, c.stop?.kWh ?? null],
      ];
    case 'repair':
      return [
        [`${head}: seen repaired`, c.n],
        [`${head}: not seen working since`, c.open],
        [`${head}: at least s, median`, known(c.least)],
        [`${head}: at most s, median`, known(c.most)],
      ];
  }
}

/**
 * A comparison as CSV (RFC 4180), one line a group, every figure with its counts.
 * @param heads one for each thing it is grouped by @param names of a row's groups, and what part of the time it is
 * @param chosen which visits it is of, in words; `''`: all, and no column says so
 */
export function comparedCsv(
  rows: readonly { row: ComparedGroup; names: readonly string[] }[],
  heads: readonly string[],
  measures: readonly Measure[],
  asked: Asked,
  chosen = '',
): string {
  const lines = rows.map(({ row, names }): Column[] => [
    ...heads.map((head, i): Column => [head, names[i] ?? '']),
    ['Visits', row.visits],
    ['Sites', row.sites],
    ['Share at the commonest site', row.commonestSite],
    ['Billed charges', row.coverage.billed],
    ['Billed charges with the start recorded', row.coverage.noted],
    ...measures.flatMap((m) => {
      const cell = row.cells[m];
      return cell ? columns(MEASURES[m].label(asked), cell) : [];
    }),
    ...onlyVisits(chosen),
  ]);
  const [first] = lines;
  return first ? `${csvFormatRows([first.map(([head]) => csvText(head)), ...lines.map((l) => l.map(([, value]) => csvText(value)))])}\n` : '';
}
