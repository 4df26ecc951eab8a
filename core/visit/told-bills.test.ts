import { deriveVisit } from './derive';
import { CARD, IN, idOf, KW, SECOND_PHONE, STALL_A, STALL_B, type Step, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';
import { AGAIN } from './told-bills';

/** Two sessions, the second at another stall. */
const TWO: Step[] = [
  IN,
  [5, 'stall_chosen', { stallId: STALL_A }],
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  [30, 'power_seen', KW],
  [300, 'unplugged'],
  [320, 'stall_chosen', { stallId: STALL_B }],
  [330, 'plugged'],
  [340, 'means_shown', CARD],
  [350, 'power_seen', KW],
  [900, 'stop_asked', { by: 'button' }],
  [960, 'unplugged'],
  [990, 'pulled_out', { reason: 'enough' }],
];
const ONE = [...TWO.slice(0, 6), TWO.at(-1) as Step];
const FILE_A = '01900000-0000-7000-8000-00000000000a';
const FILE_B = '01900000-0000-7000-8000-00000000000b';
type More = { of?: 1 | 2; from?: string; by?: string; at?: number; kWh?: string; state?: string; what?: string; counts?: string; currency?: string };
const PLUG = [2, 7].map((i) => story(...TWO)[i]?.id as string);
/** A bill, noted by somebody or brought in by a file. */
const bill = (amount: string, { of, from, by, at = 1200, currency = 'EUR', ...more }: More = {}): Step => [
  at,
  'bill',
  { sessions: of ? [PLUG[of - 1]] : [], amount, currency, state: 'charged', ...more },
  from ? { origin: 'imported', deviceId: from } : by ? { personId: by, deviceId: SECOND_PHONE } : {},
];
const derive = (steps: readonly Step[], ...bills: Step[]) => deriveVisit(VISIT, story(...steps, ...bills), payloadProblem);
const told = (steps: readonly Step[], ...bills: Step[]) => {
  const v = derive(steps, ...bills);
  return [v.bills.map((b) => b.payload.amount), v.billsAgain.map((a) => a.bill.payload.amount), v.paid.known ? v.paid.value.amount : v.paid.why];
};

describe('a session is paid once, whoever tells of it', () => {
  it('what is brought in beside a noted bill tells it again, to the same amount or another, before it or after', () => {
    expect(told(ONE, bill('12.00'), bill('12.00', { from: FILE_A, at: 1300 }))).toEqual([['12.00'], ['12.00'], '12']);
    expect(told(ONE, bill('12.00', { at: 1300 }), bill('13.50', { from: FILE_A }))).toEqual([['12.00'], ['13.50'], '12']);
    expect(told(ONE, bill('12.00'), bill('99', { from: FILE_A, currency: 'CHF' }))).toEqual([['12.00'], ['99'], '12']);
    expect(told(ONE, bill('12.00'), bill('12.00', { from: FILE_A }), bill('12.10', { from: FILE_B }))).toEqual([['12.00'], ['12.00', '12.10'], '12']);
  });
  it('alone, or beside other sessions, each counts', () => {
    expect(told(ONE, bill('12.00', { from: FILE_A }))).toEqual([['12.00'], [], '12']);
    expect(told(TWO, bill('5', { of: 1 }), bill('7', { of: 2, from: FILE_A }))).toEqual([['5', '7'], [], '12']);
    expect(told(TWO, bill('5', { of: 1 }), bill('5', { of: 1, from: FILE_A }), bill('7', { of: 2, from: FILE_A }))).toEqual([['5', '7'], ['5'], '12']);
    // Noted for the whole visit, it is told again by the parts; noted for both parts, by the whole.
    expect(told(TWO, bill('12'), bill('5', { of: 1, from: FILE_A }), bill('7', { of: 2, from: FILE_A }))).toEqual([['12'], ['5', '7'], '12']);
    expect(told(TWO, bill('5', { of: 1 }), bill('7', { of: 2 }), bill('12', { from: FILE_A }))).toEqual([['5', '7'], ['12'], '12']);
    // For one of two, what is brought in for both is more than that.
    expect(told(TWO, bill('5', { of: 1 }), bill('12', { from: FILE_A }))).toEqual([['5', '12'], [], '17']);
    expect(told(ONE, bill('12', { of: 1 }), bill('12', { from: FILE_A }))).toEqual([['12'], ['12'], '12']);
  });
  it('two that somebody noted both count, and so do two of one file: it was billed twice', () => {
    expect(told(ONE, bill('12'), bill('12', { at: 1300 }))).toEqual([['12', '12'], [], '24']);
    expect(told(ONE, bill('12', { from: FILE_A }), bill('12', { from: FILE_A, at: 1300 }))).toEqual([['12', '12'], [], '24']);
  });
  it('what two people noted alike is one bill', () => {
    const [by, third] = [idOf(30), idOf(31)];
    expect(told(ONE, bill('12'), bill('12.0', { by, at: 1300 }))).toEqual([['12'], ['12.0'], '12']);
    expect(told(ONE, bill('12'), bill('12', { by }), bill('12', { by: third }), bill('12'))).toEqual([['12', '12'], ['12', '12'], '24']);
    expect(told(ONE, bill('12'), bill('13', { by }))).toEqual([['12', '13'], [], '25']);
    expect(told(TWO, bill('6', { of: 1 }), bill('6', { of: 2, by }))).toEqual([['6', '6'], [], '12']);
    expect(told(TWO, bill('6', { of: 1 }), bill('6', { by }))[0]).toHaveLength(2);
    expect(told(ONE, bill('12'), bill('12', { by, counts: 'as_well' }))).toEqual([['12', '12'], [], '24']);
    expect(told(ONE, bill('12'), bill('12', { by, state: 'refunded' }), bill('12', { by }))).toEqual([['12', '12', '12'], [], '12']);
    const pending = derive(ONE, bill('12', { state: 'pending' }), bill('12', { by, at: 1300 }));
    expect([pending.bills.map((b) => b.payload.state), pending.billsAgain.map((a) => a.bill.payload.state)]).toEqual([['charged'], ['pending']]);
    expect(told(ONE, bill('12'), bill('12', { by, state: 'pending' }))).toEqual([['12'], ['12'], '12']);
  });
  it('two files that tell the same sessions to the same amount tell one bill', () => {
    expect(told(ONE, bill('12.0', { from: FILE_A }), bill('12.00', { from: FILE_B, at: 1300 }))).toEqual([['12.0'], ['12.00'], '12']);
    expect(told(ONE, bill('12', { from: FILE_A }), bill('13', { from: FILE_B, at: 1300 }))).toEqual([['12', '13'], [], '25']);
    expect(told(ONE, bill('12', { from: FILE_A }), bill('12', { from: FILE_B, at: 1300, currency: 'CHF' }))[0]).toHaveLength(2);
    expect(told(TWO, bill('6', { of: 1, from: FILE_A }), bill('6', { of: 2, from: FILE_B }))).toEqual([['6', '6'], [], '12']);
    expect(told(TWO, bill('6', { of: 1, from: FILE_A }), bill('6', { from: FILE_B }))[0]).toHaveLength(2);
    // Of the same energy, whatever each says was paid; a fee for standing there is of none.
    const two = (a: string | undefined, b: string | undefined) =>
      told(ONE, bill('12', { from: FILE_A, ...(a ? { kWh: a } : {}) }), bill('13', { from: FILE_B, at: 1300, ...(b ? { kWh: b } : {}) }))[0];
    expect([two('20', '20.5'), two('100', '105.2'), two('20', '21')]).toEqual([['12'], ['12'], ['12']]);
    expect([two('0.1', '0.61'), two('100', '105.3'), two('20', '0'), two('20', undefined), two(undefined, '20')]).toEqual(Array(5).fill(['12', '13']));
    expect(two('5', '5.5')).toEqual(['12']);
    // Taken back and charged anew, in a later file.
    expect(told(ONE, bill('12', { from: FILE_A }), bill('12', { from: FILE_B, at: 1300, state: 'refunded' }), bill('12', { from: FILE_B, at: 1400 }))).toEqual([
      ['12', '12', '12'],
      [],
      '12',
    ]);
  });
  it('a pending one gives way to what was charged; a refund, a parking ticket and one of its own do not', () => {
    expect(told(ONE, bill('10', { state: 'pending' }), bill('12', { from: FILE_A }))).toEqual([['12'], ['10'], '12']);
    expect(told(ONE, bill('10', { state: 'pending' }), bill('12', { from: FILE_A, state: 'pending' }))).toEqual([['10', '12'], [], '22']);
    expect(told(TWO, bill('10', { state: 'pending' }), bill('12', { of: 1, from: FILE_A }))).toEqual([['10', '12'], [], '22']);
    expect(told(ONE, bill('12'), bill('12', { from: FILE_A }), bill('5', { from: FILE_A, state: 'refunded' }))).toEqual([['12', '5'], ['12'], '7']);
    expect(told(ONE, bill('4', { what: 'parking' }), bill('12', { from: FILE_A }))).toEqual([['4', '12'], [], '16']);
    expect(told(ONE, bill('12'), bill('4', { from: FILE_A, what: 'parking' }))).toEqual([['12', '4'], [], '16']);
    expect(told(ONE, bill('12'), bill('1', { from: FILE_A, counts: 'as_well' }))).toEqual([['12', '1'], [], '13']);
    expect(told(ONE, bill('12', { counts: 'as_well' }), bill('11', { from: FILE_A }))).toEqual([['12', '11'], [], '23']);
  });
  it('of the visit whose power nobody saw, too; once the noted one is taken back the other counts', () => {
    const unseen = [IN, [990, 'pulled_out', { reason: 'enough' }] as Step];
    expect(told(unseen, bill('12'), bill('12', { from: FILE_A }))).toEqual([['12'], ['12'], '12']);
    const target = story(...ONE, bill('12'))[ONE.length]?.id;
    expect(told(ONE, bill('12'), bill('13', { from: FILE_A }), [1500, 'withdrawal', { target }])).toEqual([['13'], [], '13']);
  });
});

describe('what a bill that tells again is good for', () => {
  it('its kWh, where those that count say none', () => {
    const delivered = (...bills: Step[]) => {
      const { delivered } = derive(ONE, ...bills);
      return 'value' in delivered ? delivered.value : null;
    };
    expect(delivered(bill('12'), bill('12', { from: FILE_A, kWh: '20.5' }))).toBe('20.5');
    expect(delivered(bill('12', { kWh: '20' }), bill('12', { from: FILE_A, kWh: '20.5' }))).toBe('20');
    expect(delivered(bill('12'), bill('12', { from: FILE_A, kWh: '20.5' }), bill('12', { from: FILE_B, kWh: '21' }))).toBe('20.5');
    expect(delivered(bill('12'), bill('12', { from: FILE_A }))).toBeNull();
    expect(delivered(bill('12'), bill('12', { from: FILE_A }), bill('12', { from: FILE_B, kWh: '21' }))).toBe('21');
    // A parking ticket says nothing of energy.
    expect(delivered(bill('12'), bill('3', { what: 'parking', kWh: '1' }), bill('12', { from: FILE_A, kWh: '20.5' }))).toBe('20.5');
  });
  it('for the session whose noted bill says none, beside one whose does', () => {
    const parts = [bill('5', { of: 1 }), bill('7', { of: 2, kWh: '20' })];
    const delivered = (...bills: Step[]) => {
      const { delivered } = derive(TWO, ...parts, ...bills);
      return 'value' in delivered ? delivered.value : null;
    };
    expect(delivered(bill('5', { of: 1, from: FILE_A, kWh: '11' }), bill('7', { of: 2, from: FILE_A, kWh: '20.4' }))).toBe('31');
    expect(delivered(bill('7', { of: 2, from: FILE_A, kWh: '20.4' }))).toBeNull();
    expect(delivered(bill('5', { of: 1, from: FILE_A }), bill('5', { of: 1, from: FILE_B, kWh: '11' }))).toBe('31');
  });
  it.each([
    [bill('12'), bill('12.0', { from: FILE_A }), 'tells the bill above again: paid once'],
    [bill('12'), bill('13', { from: FILE_A }), 'tells the bill above again, with another amount: hold one against the other'],
    [bill('12'), bill('12', { by: idOf(30) }), 'tells the bill above again: paid once'],
    [bill('10', { state: 'pending' }), bill('12', { from: FILE_A }), 'noted as pending; what was charged is told above'],
  ])('and it is said why it is not counted: %#', (a, b, said) => {
    const v = derive(ONE, a, b);
    expect(v.billsAgain.map((again) => AGAIN[again.how])).toEqual([said]);
  });
  it('another amount is one that neither a bill that counts tells, nor all of its file together', () => {
    const other = (...bills: Step[]) => derive(TWO, ...bills).billsAgain.flatMap(({ bill, how }) => (how === 'other' ? [bill.payload.amount] : []));
    const parts = (a: string, b: string, more: More = {}) => [bill(a, { of: 1, from: FILE_A }), bill(b, { of: 2, from: FILE_A, ...more })];
    expect(other(bill('12'), ...parts('5', '7'))).toEqual([]);
    expect(other(bill('12'), ...parts('5', '8'))).toEqual(['5', '8']);
    expect(other(bill('12'), ...parts('5', '7', { currency: 'CHF' }))).toEqual(['5', '7']);
    expect(other(bill('5', { of: 1 }), bill('7', { of: 2 }), ...parts('5', '9'))).toEqual(['9']);
    expect(other(bill('5', { of: 1 }), bill('7', { of: 2 }), bill('12', { from: FILE_A }), bill('13', { from: FILE_B }))).toEqual(['13']);
    expect(other(bill('12'), bill('4', { what: 'parking' }), bill('2', { state: 'refunded' }), bill('12.0', { from: FILE_A }))).toEqual([]);
    expect(other(bill('10', { state: 'pending' }), bill('12', { from: FILE_A }))).toEqual([]);
    expect(other(bill('12', { from: FILE_A, kWh: '20' }), bill('13', { from: FILE_B, kWh: '20', at: 1300 }))).toEqual(['13']);
  });
});
