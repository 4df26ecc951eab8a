import { cdrOf } from './fixtures/cdr';
import { cdrsIn } from './ocpi-cdrs';
import { plainJson } from './plain-json';
import { readJson } from './strict-json';

const START = Date.UTC(2025, 9, 14, 11);
const read = (minutes: number, more: object, text = JSON.stringify(cdrOf({ start: START, end: START + minutes * 60_000 }, more))) => {
  const found = readJson(new TextEncoder().encode(text));
  if (!found.ok) throw new Error(found.code);
  return cdrsIn(found.value);
};
const said = (got: ReturnType<typeof read>) => got.breaches.map((b) => `${b.pointer} ${b.code}`);

it.each([
  // Twenty minutes are a third of an hour, which no decimal is.
  [20, 0.35, []],
  [20, 0.316_666_666_666, ['/total_time sum']],
  [20, 0.350_000_000_01, ['/total_time sum']],
  [19, 0.333_333_333_333, []],
  [60, 1, []],
])('%d minutes from start to end and a total of %d h', (minutes, total_time, want) => expect(said(read(minutes, { total_time }))).toEqual(want));
it('the times of its periods go before its start and end', () => {
  const periods = (hours: number) => ({
    charging_periods: [
      {
        start_date_time: new Date(START).toISOString(),
        dimensions: [
          { type: 'ENERGY', volume: 10 },
          { type: 'TIME', volume: hours },
        ],
      },
    ],
  });
  expect(said(read(60, { ...periods(0.5), total_time: 0.5 }))).toEqual([]);
  expect(said(read(60, { ...periods(0.5), total_time: 1 }))).toEqual(['/total_time sum']);
});

it.each([
  ['"4111 1111 1111 1111 12/27"', 'not kept'],
  ['4111111111111111', 'not kept'],
  // Milliseconds and what was measured pass the check digit once in ten, too.
  ['1760446328005', 1_760_446_328_005],
  ['0.4111111111111111', 0.4111111111111111],
  ['411111111111111111', 411111111111111100],
])('of %s in a record is kept %s', (written, kept) => {
  const text = JSON.stringify(cdrOf({ start: START, end: START + 3_600_000 }, { x_more: { list: ['HERE'] } })).replace('"HERE"', written);
  const [record] = read(60, {}, text).records.values();
  expect(plainJson(record as never)).toMatchObject({ total_energy: 10, x_more: { list: [kept] } });
});
