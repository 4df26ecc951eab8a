import { localIso } from '../units/local-iso';
import type { CsvColumn, CsvValue } from './csv-out';

const UNIT: Readonly<Record<string, string>> = { '%': 'pct', '°': 'deg', JSON: '' };

/** The name of a column as a member: `lost to faults (s)` is `lost_to_faults_s`. */
export function memberOf(heading: string): string {
  const [, words = heading, unit = ''] = /^(.*?)(?:\s*\(([^)]*)\))?$/.exec(heading) ?? [];
  const of = UNIT[unit] ?? unit;
  return [...words.trim().split(/[^\p{L}\p{N}]+/u), of].filter(Boolean).join('_');
}
const isJson = (c: CsvColumn): boolean => c.heading.endsWith('(JSON)');

function valueOf(value: CsvValue, column: CsvColumn): unknown {
  if (value === null) return null;
  if (typeof value === 'object') return 'unknown' in value ? null : localIso(value.at, value.zone, value.precision);
  if (isJson(column) && typeof value === 'string') return JSON.parse(value);
  return value;
}

/** A row of a sheet as an object: figures as they were kept, decimals as text, `null` where one is not known and the reason in `unknown`. */
export function rowObject(columns: readonly CsvColumn[], row: readonly CsvValue[]): Record<string, unknown> {
  const unknown: Record<string, string> = {};
  const members = columns.map((c, i): [string, unknown] => {
    const value = row[i] ?? null;
    if (value !== null && typeof value === 'object' && 'unknown' in value) unknown[memberOf(c.heading)] = value.unknown;
    return [memberOf(c.heading), valueOf(value, c)];
  });
  return { ...Object.fromEntries(members), unknown };
}

const TYPE: Readonly<Record<CsvColumn['type'], object>> = {
  text: { type: ['string', 'null'] },
  number: { type: ['number', 'null'] },
  decimal: { type: ['string', 'null'], pattern: '^-?\\d+(\\.\\d+)?$' },
  instant: { type: ['string', 'null'] },
  yesno: { type: 'boolean' },
};

/** The JSON Schema of such an object. */
export const rowSchema = (columns: readonly CsvColumn[]): object => ({
  type: 'object',
  required: [...columns.map((c) => memberOf(c.heading)), 'unknown'],
  properties: {
    ...Object.fromEntries(columns.map((c) => [memberOf(c.heading), { ...(isJson(c) ? { type: ['object', 'null'] } : TYPE[c.type]), description: c.heading }])),
    unknown: { type: 'object', description: 'why a figure is not known, by its name', additionalProperties: { type: 'string' } },
  },
});
