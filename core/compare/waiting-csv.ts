import { csvFormatRows } from 'd3-dsv';
import { csvText } from '../units/csv-text';
import { onlyVisits } from './filter-words';
import type { WaitingCurve } from './waiting-curve';

/** The curves as CSV: a line for each time at which somebody got power, and what is known of the share still waiting then. @param chosen which visits they are of; `''`: all */
export function waitingCsv(curves: readonly WaitingCurve[], nameOf: (group: string) => string, chosen = ''): string {
  const only = onlyVisits(chosen);
  const head = ['Of', 'After s', 'Still waiting', '95 % from', '95 % to', 'At risk', 'Got power', ...only.map(([head]) => head)];
  const lines = curves.flatMap((c) => [
    [nameOf(c.group), 0, 1, null, null, c.starts, 0],
    ...c.steps.map((s) => [nameOf(c.group), s.time, s.still, s.lower, s.upper, s.atRisk, s.events]),
  ]);
  return `${csvFormatRows([head, ...lines.map((l) => [...l, ...only.map(([, value]) => value)].map(csvText))])}\n`;
}
