import { MOST_DOCUMENT } from '../records/place-schema';
import { privateNumber } from '../records/private-number';
import type { RecordFields } from '../records/record-schema';
import { jsonText } from './json-text';
import { keptJson } from './kept-json';
import type { JsonObject } from './strict-json';

/** As a site's record has it. */
type FromFile = NonNullable<RecordFields<'site'>['fromFile']>;
/** What of a file is kept with its site. `lacks`: its posts, or all of it, where that is longer than is kept. */
export type PlaceDocument = { format: FromFile['format']; text: string | null; lacks: 'nothing' | 'posts' | 'all' };

/** What a Location or a feature says of a site, as it stands in its file but for numbers of cards and contracts. */
export function placeDocument(format: FromFile['format'], value: JsonObject): PlaceDocument {
  const whole = keptJson(value) as JsonObject;
  const fits = (o: JsonObject): string | null => {
    const text = jsonText(o);
    return text.length <= MOST_DOCUMENT && privateNumber(text) === null ? text : null;
  };
  const text = fits(whole);
  if (text !== null) return { format, text, lacks: 'nothing' };
  const without = fits(new Map([...whole].filter(([name]) => name !== 'evses')));
  return { format, text: without, lacks: without === null ? 'all' : 'posts' };
}

/** Members that are of the moment. */
const MOMENT: ReadonlySet<string> = new Set(['last_updated', 'status']);
/** Whether two documents say the same of a site, whatever they say of the moment. */
export function saysTheSame(a: string, b: string): boolean {
  const lasting = (text: string) => JSON.stringify(JSON.parse(text), (name, value) => (MOMENT.has(name) ? undefined : value));
  return a === b || lasting(a) === lasting(b);
}

/** What a document of a format holds, as plain values; nothing where there is none of it. */
export const documentMembers = (from: FromFile | null, format: FromFile['format']): Readonly<Record<string, unknown>> =>
  from?.format === format ? (JSON.parse(from.document) as Record<string, unknown>) : {};

export type DocumentRow = { at: string; value: string };
/** A document row by row, for people to read. `at`: where a value stands in it; lists of words are one row. @param document JSON text */
export function documentRows(document: string): DocumentRow[] {
  const rows: DocumentRow[] = [];
  const walk = (value: unknown, at: string): void => {
    if (value === null || value === '') return;
    const plain = (v: unknown) => v === null || typeof v !== 'object';
    if (plain(value)) rows.push({ at, value: String(value) });
    else if (Array.isArray(value) && value.every(plain)) {
      if (value.length > 0) rows.push({ at, value: value.join(', ') });
    } else for (const [name, of] of Object.entries(value as object)) walk(of, at === '' ? name : `${at}/${name}`);
  };
  walk(JSON.parse(document), '');
  return rows;
}
