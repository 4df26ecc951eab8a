import sheets from './fixtures/sheets-in.json';
import { readSheet, type SheetAnswer, type SheetRead } from './sheet-import';

// biome-ignore lint/suspicious/noExplicitAny: a case is read as it stands in the file.
type Any = any;
const world = { sites: sheets.world.sites, networks: sheets.world.networks };
const bytesOf = (c: Any): Uint8Array =>
  c.bytes
    ? Uint8Array.from(Buffer.from(c.bytes, 'base64'))
    : new TextEncoder().encode(c.recipe.map((p: { text: string; times: number }) => p.text.repeat(p.times)).join(''));
const settingsOf = (c: Any) => ({ zone: c.settings.zone, now: Date.parse(c.settings.now), currency: c.settings.currency });
const iso = (ms: number | null) => (ms === null ? null : new Date(ms).toISOString());
const decimal = (text: string | null) => (text === null ? null : Number(text));
const sorted = (list: readonly Any[]) => [...list].map((x) => JSON.stringify(x)).sort();
const rowOf = ({ start, startPrecision, end, kWh, amount, perKWh, minutes, warnings, ...r }: Any) => ({
  ...r,
  start: iso(start),
  start_precision: startPrecision,
  end: iso(end),
  kWh: decimal(kWh),
  amount: decimal(amount),
  perKWh: decimal(perKWh),
  minutes,
  warnings: [...warnings].sort(),
});
const wanted = (r: Any) => ({
  ...r,
  kWh: decimal(r.kWh),
  amount: decimal(r.amount),
  perKWh: decimal(r.perKWh),
  minutes: r.minutes === null ? null : expect.closeTo(r.minutes, 1.7),
  warnings: [...r.warnings].sort(),
});
const lines = (asks: readonly Any[]) =>
  asks.map((a) => ({ code: a.code, column: a.column, options: a.options, lines: [...a.lines].sort((x: number, y: number) => x - y) }));

function compare(got: SheetRead, want: Any): void {
  if (!got.ok) throw new Error(JSON.stringify(got));
  if (want.dialect)
    expect({ ...got.dialect, lineEnds: [...got.dialect.lineEnds].sort() }).toEqual({ ...want.dialect, lineEnds: [...want.dialect.lineEnds].sort() });
  if (want.columns) expect(got.columns).toEqual(want.columns);
  if (want.refused)
    expect(got.refused.map((r) => ({ line: r.line, reasons: sorted(r.reasons) }))).toEqual(
      want.refused.map((r: Any) => ({ line: r.line, reasons: sorted(r.reasons) })),
    );
  if (want.accepted) expect(got.accepted.map(rowOf)).toEqual(want.accepted.map(wanted));
  if (want.skipped) expect(got.skipped).toEqual(want.skipped);
  if (want.asks) expect(sorted(lines(got.asks))).toEqual(sorted(lines(want.asks)));
  if (want.waiting) expect([...got.waiting].sort((a, b) => a - b)).toEqual(want.waiting);
  if (want.proposed)
    expect({ sites: sorted(got.proposed.sites), networks: sorted(got.proposed.networks) }).toEqual({
      sites: sorted(want.proposed.sites),
      networks: sorted(want.proposed.networks),
    });
}

describe('spreadsheets in', () => {
  it.each(sheets.cases.map((c) => [c.id, c.title, c as Any] as const))('%s: %s', (_id, _title, c) => {
    compare(readSheet(bytesOf(c), world, settingsOf(c)), c.expected);
    for (const { answers, ...changed } of c.expected.answered ?? []) compare(readSheet(bytesOf(c), world, settingsOf(c), answers as SheetAnswer[]), changed);
  });
  it.each(sheets.limits.map((c) => [c.id, c.title, c as Any] as const))('limits %s: %s', (_id, _title, c) => {
    const got = readSheet(bytesOf(c), world, settingsOf(c));
    const { refused, where, rows_accepted, rows_refused } = c.expected;
    if (refused) return expect(got).toEqual({ ok: false, code: refused, where });
    if (!got.ok) throw new Error(JSON.stringify(got));
    expect(got.accepted).toHaveLength(rows_accepted);
    expect(got.refused.map(({ line, reasons }) => ({ line, reasons }))).toEqual(rows_refused);
  });
});

it('what has no field is kept, whatever its heading and however often that comes', () => {
  const text = 'Start;Station;Energy (kWh);Odd;Odd;__proto__;\n2025-10-14 13:52;Vrba Crossing;1;a;b;c;d\n';
  const got = readSheet(new TextEncoder().encode(text), world, { zone: 'UTC', now: Date.UTC(2025, 11, 1), currency: null });
  expect(got.ok && got.accepted.map((r) => r.rest)).toEqual([{ Odd: 'a', 'column 5': 'b', 'column 6': 'c', 'column 7': 'd' }]);
});

describe('columns that somebody names', () => {
  const settings = { zone: 'Europe/Ljubljana', now: Date.UTC(2025, 11, 1), currency: 'EUR' };
  const read = (text: string, columns?: unknown) => {
    const got = readSheet(new TextEncoder().encode(text), world, settings, columns === undefined ? [] : [{ code: 'columns', answer: columns }]);
    if (!got.ok) throw new Error(got.code);
    return got;
  };
  it('where no heading is known nothing is read until they are said', () => {
    const text = '2025-10-14 13:52;Vrba Crossing;41,37;23,10;x\n2025-10-15 13:52;Vrba Crossing;1,5;2;y\n';
    expect(read(text)).toMatchObject({
      accepted: [],
      waiting: [1, 2],
      asks: [{ code: 'columns' }],
      first: ['2025-10-14 13:52', 'Vrba Crossing', '41,37', '23,10', 'x'],
    });
    const got = read(text, { 1: { field: 'start' }, 2: { field: 'site' }, 3: { field: 'kWh', unit: 'kWh' }, 4: { field: 'amount', currency: 'CHF' } });
    expect(got.asks).toEqual([]);
    expect(got.accepted.map((r) => [r.site, r.kWh, r.amount, r.currency, r.rest])).toEqual([
      ['Vrba Crossing', '41.37', '23.1', 'CHF', { 'column 5': 'x' }],
      ['Vrba Crossing', '1.5', '2', 'CHF', { 'column 5': 'y' }],
    ]);
  });
  it('a guess is put right by its column, the others stay; what is no answer says nothing', () => {
    const text = 'Start;Station;Energy (kWh);Cost (EUR);Memo\n2025-10-14 13:52;Vrba Crossing;41,37;23,10;x\n';
    const row = (columns: unknown) => read(text, columns).accepted.map((r) => [r.kWh, r.amount, r.note, r.rest])[0];
    expect(row({ 5: { field: 'note' } })).toEqual(['41.37', '23.1', 'x', {}]);
    expect(row({ 4: { field: null } })).toEqual(['41.37', null, null, { 'Cost (EUR)': '23,10', Memo: 'x' }]);
    expect(row({ 4: { field: 'perKWh' }, 5: { field: 'nonsense' }, x: 7 })).toEqual(['41.37', null, null, { Memo: 'x' }]);
    expect(row('nothing')).toEqual(row(undefined));
    expect(read(text, { 5: { field: 'site' } }).asks).toMatchObject([{ code: 'column_twice', column: 2, options: [2, 5], lines: [2] }]);
  });
});
