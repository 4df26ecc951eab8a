import { csvFormatRows } from 'd3-dsv';
import { csvText } from '../units/csv-text';
import type { PowerChartData } from './power-chart';

const n = (x: number | null, digits: number): string => (x === null ? '' : x.toFixed(digits));

/** Every point that a chart draws, a row each: units in the heading, nothing where nobody looked. */
export const powerCsv = (data: PowerChartData): string =>
  `${csvFormatRows([
    ['series', 'minutes', 'battery (%)', 'power (kW)', 'energy (kWh)', 'known by'],
    ...data.lines.flatMap((l) => l.points.map((p) => [csvText(l.label), n(p.min, 3), n(p.socPct, 2), n(p.kW, 2), n(p.kWh, 3), p.how])),
  ])}\n`;
