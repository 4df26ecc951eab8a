import type { Asked } from '../figures/populations';
import { attempt, failed, visit } from './fixtures/rows';
import { placeRecord } from './place-record';
import { arrivalWords, methodWords, placeRows, SPREAD_WORDS } from './place-words';
import type { VisitRow } from './visit-row';

const ASKED: Asked = { time: 'handshake', mark: 'kW', currency: 'EUR' };
const DAY = 86_400_000;
const recordOf = (...visits: VisitRow[]) => placeRecord(visits, ASKED, 'stall');
const rowsOf = (...visits: VisitRow[]) => Object.fromEntries(placeRows(recordOf(...visits).all).map((r) => [r.label, [r.value, r.counted]]));
const good = (more: Partial<VisitRow> = {}) => visit({ stallId: 'a', workedAt: ['a'], attempts: [attempt(20, { stallId: 'a' })], ...more });
const bad = (more: Partial<VisitRow> = {}) => visit({ stallId: 'a', firstTry: 'no', attempts: [{ ...failed, stallId: 'a', side: 'network' }], ...more });

describe('a place in one look', () => {
  it('says every figure that is known, each of its visits', () => {
    const billed = { paid: '5', deliveredKWh: '10', currency: 'EUR', ended: 'charge' };
    const rows = rowsOf(
      good({ at: DAY, ...billed, noted: true, billCheck: 'right', lost_s: 60 }),
      bad({ at: 2 * DAY, faultMarks: 'start_error:network', lost_s: 120 }),
      good({ at: 3 * DAY, ...billed, billCheck: 'off', lost_s: 0 }),
      visit({ firstTry: 'left_out', attempts: [{ ...failed, outcome: 'open' }], lost_s: null }),
    );
    expect(rows).toEqual({
      'Starts at the first try': ['2 of 3', 'attempted'],
      '95 % interval': ['21 % to 94 %', null],
      'Left out: only claimed or open': ['1', 'first_left_out'],
      'Handshake, median': ['20.0 s', 'timed'],
      'Lost per visit': ['1:00', 'lost'],
      'Price per kWh with fees': ['€0.500', 'priced'],
      'Bills off': ['1 of 2 checked', 'bill_off'],
      'Faults per 100 visits': ['25.0', 'faulty'],
      'Repaired after, as seen': ['at most 2.0 days', null],
    });
  });
  it('says why, where something is not known, and opens nothing then', () => {
    expect(rowsOf(bad({ lost_s: null }))).toEqual({
      'Starts at the first try': ['0 of 1', 'attempted'],
      '95 % interval': ['0 % to 79 %', null],
      'Handshake, median': ['none got power', null],
      'Lost per visit': ['not recorded', null],
      'Price per kWh with fees': ['no bill and kWh together', null],
      'Faults per 100 visits': ['0.0', 'faulty'],
      'Repaired after, as seen': ['1 not seen working since', null],
    });
    expect(rowsOf(visit({ firstTry: 'left_out', attempts: [{ ...failed, outcome: 'open' }] }))['95 % interval']).toEqual(['cannot tell yet', null]);
    expect(rowsOf(good())['Repaired after, as seen']).toBeUndefined();
    expect(placeRows(null)).toEqual([]);
  });
  it('bills that are all right open those that were checked; a hundred faults and more lose their decimal', () => {
    const right = good({ paid: '5', deliveredKWh: '10', currency: 'EUR', billCheck: 'right' });
    expect(rowsOf(right)['Bills off']).toEqual(['0 of 1 checked', 'bill_checked']);
    expect(rowsOf(bad({ faultMarks: 'start_error:network,card_refused:network' }))['Faults per 100 visits']).toEqual(['200', 'faulty']);
    expect(rowsOf(bad({ faultMarks: 'start_error:network' }))['Faults per 100 visits']).toEqual(['100', 'faulty']);
  });
  it('has a sentence for each way in which the choices can differ', () => {
    expect(Object.values(SPREAD_WORDS).every((words) => words.endsWith('.'))).toBe(true);
    expect(new Set(Object.values(SPREAD_WORDS)).size).toBe(5);
  });
});

describe('what was seen on arrival', () => {
  const looked = (baysSeen: number, baysOut: number) => recordOf(good({ baysSeen, baysOut }));
  it('stands beside what rules ask as metered, with its interval', () => {
    // Wilson's interval of 1 in 4: 4.6 to 69.9 %. Three of four are seen with a chance of 5 % where 0.95^¼ = 98.7 % work: above 97, below 99. By hand.
    expect(arrivalWords(looked(4, 1))).toEqual({
      looks: '1 look',
      rest: '3 of 4 bays in order',
      share: '75 %',
      interval: '30 % to 95 %',
      rows: [
        { label: '97 %', source: '23 CFR 680.116 (United States)', verdict: 'cannot tell yet' },
        { label: '99 %', source: 'Public Charge Point Regulations 2023 (United Kingdom), rapid networks', verdict: 'below' },
      ],
    });
    expect(arrivalWords(looked(299, 0))?.rows.map((r) => r.verdict)).toEqual(['above', 'above']);
    expect(arrivalWords(looked(100, 20))?.rows.map((r) => r.verdict)).toEqual(['below', 'below']);
  });
  it('is nothing where nobody looked', () => expect(arrivalWords(recordOf(good()))).toBeNull());
});

describe('how a record was counted', () => {
  const METHOD =
    'Method: every visit that was recorded counts, times are taken by the driver at the stall, failed attempts count as never; shares with Wilson’s 95 % interval. Bad stops are recorded more often than good ones';
  it('says of how many visits, from when to when, and who was not asked', () => {
    const charged = { ended: 'charge', paid: '5' };
    const record = recordOf(
      good({ at: Date.parse('2025-10-14T12:00:00Z'), ...charged, noted: true }),
      good({ at: Date.parse('2025-10-16T12:00:00Z'), ...charged }),
    );
    expect(methodWords(record, 2, 'UTC')).toBe(
      `2 visits, Tuesday 14 October 2025 to Thursday 16 October 2025. ${METHOD}: 1 of 2 billed charges were recorded. The operator was not asked.`,
    );
    expect(methodWords(recordOf(good()), 1, 'UTC')).toBe(`1 visit, Thursday 1 January 1970 to Thursday 1 January 1970. ${METHOD}. The operator was not asked.`);
    expect(methodWords(recordOf(), 0, 'UTC')).toBe(`${METHOD}. The operator was not asked.`);
  });
});
