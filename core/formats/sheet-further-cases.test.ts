import further from './fixtures/sheets-further.json';
import sheets from './fixtures/sheets-in.json';
import { readSheet, type SheetAnswer } from './sheet-import';

// What is expected was worked out by a second program: the fixture says so.
const iso = (ms: number | null) => (ms === null ? null : new Date(ms).toISOString().replace('.000Z', 'Z'));
const figure = (v: string | number | null) => (v === null ? null : Math.round(Number(v) * 1e6) / 1e6);
/** A row without what it does not say. */
const told = (row: object) => Object.fromEntries(Object.entries(row).filter(([, v]) => v !== null && !(typeof v === 'object' && Object.keys(v).length === 0)));

it.each(further.cases.map((c, i) => [i, c] as const))('sheet %d', (_, c) => {
  const got = readSheet(
    new TextEncoder().encode(c.text),
    sheets.world,
    { zone: c.zone, currency: c.currency, now: Date.parse(further.now) },
    'answers' in c ? (c.answers as SheetAnswer[]) : [],
  );
  if (!got.ok) throw new Error(got.code);
  const accepted = got.accepted.map(({ start, end, kWh, amount, perKWh, minutes, handshake_s, warnings, ...row }) =>
    told({
      ...row,
      start: iso(start),
      end: iso(end),
      kWh: figure(kWh),
      amount: figure(amount),
      perKWh: figure(perKWh),
      minutes: figure(minutes),
      handshake_s: figure(handshake_s),
      warnings: [...warnings].sort(),
    }),
  );
  const reasons = (all: (typeof got.refused)[number]['reasons']) =>
    [...new Set(all.map((r) => `${r.column} ${r.code}`))].sort((a, b) => Number.parseInt(a, 10) - Number.parseInt(b, 10) || (a < b ? -1 : 1)).join(' ');
  expect(
    told({
      accepted,
      decimal: got.dialect.decimal,
      dateOrder: got.dialect.dateOrder,
      waiting: [...got.waiting].sort((a, b) => a - b),
      refused: Object.fromEntries(got.refused.map((r) => [r.line, reasons(r.reasons)])),
      skipped: Object.fromEntries(got.skipped.map((s) => [s.line, s.code])),
      asks: got.asks.map((a) => `${a.code} ${a.column ?? 0}: ${[...a.lines].sort((x, y) => x - y).join()}`).sort(),
    }),
  ).toEqual(told(c.expected));
});
