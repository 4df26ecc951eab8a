import { allInCsv, allInSentence, per100, yieldWords } from './all-in-words';
import { billState } from './bill-state';

const all = (more: object = {}) =>
  ({
    visits: 12,
    kWh: 400,
    paid: 200,
    perKWh: 0.5,
    perBatteryKWh: 0.5263157,
    per100km: 9,
    time: { hours: 6.5, per100km: 12 },
    stop: { kWh: 33.25, hour: 17 },
    ...more,
  }) as Parameters<typeof allInSentence>[0] & object;
const EUR = { currency: 'EUR', distance: 'km' } as const;
const MILES = { currency: 'GBP', distance: 'mi' } as const;

describe('what charging came to, in words', () => {
  it('is so much a kWh and so much for the way, at what consumption and how that is known', () => {
    expect(allInSentence(all(), { kWhPer100km: 18, by: 'measured' }, EUR)).toBe(
      '€0.500 per kWh with fees, over 400.0 kWh of 12 billed charges: €9.00 for 100 km at 18.0 kWh/100 km, as measured on the way.',
    );
    expect(allInSentence(all({ visits: 1 }), { kWhPer100km: 18, by: 'noted' }, EUR)).toMatch(/of 1 billed charge: .*, as noted with the car\.$/);
    // 9 for 100 km are 14.48 for 100 mi: one mile is 1.609344 km, NIST SP 811.
    expect(allInSentence(all(), { kWhPer100km: 18, by: 'noted' }, MILES)).toMatch(/£14\.48 for 100 mi at 3\.5 mi\/kWh/);
    expect([per100(9, 'km'), per100(9, 'mi')]).toEqual([9, expect.closeTo(14.484096, 9)]);
  });
  it('without consumption the way is not told, without charges nothing is', () => {
    const end = 'over 400.0 kWh of 12 billed charges. What 100 km cost is told once the car’s consumption is noted.';
    expect(allInSentence(all(), null, EUR)).toContain(end);
    expect(allInSentence(all({ per100km: null }), { kWhPer100km: 18, by: 'noted' }, EUR)).toContain(end);
    expect(allInSentence(null, null, EUR)).toMatch(/^No charge of the last twelve months has both its kWh and its bill/);
  });
  it('says what comes into the battery, by own charges or as is usual', () =>
    expect(yieldWords({ dc: { of: 0.954, own: true, n: 7 }, ac: { of: 0.9, own: false, n: 0 } } as Parameters<typeof yieldWords>[0])).toBe(
      'DC 95 %, by 7 own charges; AC 90 %, as is usual',
    ));
  it('as a table for a spreadsheet, unknown as empty, formulas told to be text', () => {
    const rows = [
      { ...all(), name: '=Saltmarsh' },
      { ...all({ per100km: null, time: { hours: 6.5, visits: 0, per100km: null }, stop: { kWh: 33.25, hour: null } }), name: 'B' },
    ];
    expect(allInCsv(rows, EUR).split('\n')).toEqual([
      'network,billed charges,kWh,paid EUR,EUR per kWh,EUR per kWh in the battery,EUR per 100 km,EUR per 100 km with the time,hours at the site,"kWh of a stop, median","hour of a stop, median"',
      "'=Saltmarsh,12,400.000,200.00,0.5000,0.5263,9.00,12.00,6.50,33.3,17",
      'B,12,400.000,200.00,0.5000,0.5263,,,6.50,33.3,',
      '',
    ]);
    expect(allInCsv(rows, MILES).split('\n')[1]).toContain(',14.48,19.31,');
  });
});

it.each([
  ['charged', 'Was charged'],
  ['pending', 'Is pending'],
  ['checked', 'Was charged, checked'],
  ['queried', 'Was charged, queried'],
  ['settled', 'Was charged, settled'],
  ['refunded', 'Refunded'],
  ['of a newer version', 'Was charged'],
])('a bill that is %s: %s', (state, words) => expect(billState(state)).toBe(words));
