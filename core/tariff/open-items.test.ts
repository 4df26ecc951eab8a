import { deriveVisit } from '../visit/derive';
import { CARD, IN, idOf, KW, SECOND_PHONE, type Step, story, VISIT } from '../visit/fixtures/story';
import { holdsOf } from '../visit/holds';
import { openMoney } from '../visit/open-money';
import { payloadProblem } from '../visit/payloads';
import type { CheckedBill } from './checked-bill';
import { longestFirst, openFor, openItems } from './open-items';

const HOLD = idOf(102);
const CHARGE: Step[] = [
  IN,
  [20, 'plugged'],
  [30, 'means_shown', { ...CARD, holdAmount: '40', currency: 'EUR' }],
  [60, 'power_seen', KW],
  [1860, 'power_gone', { why: 'asked' }],
  [1860, 'reading', { screen: 'stall', kWh: '40' }],
  [2500, 'pulled_out', { reason: 'enough' }],
];
const bill = (amount: string, more: object = {}): Step => [3000, 'bill', { sessions: [], amount, currency: 'EUR', state: 'charged', ...more }];
const released = (on: string, hold = HOLD): Step => [200_000, 'hold_released', { hold, on }];
const visit = (...steps: Step[]) => deriveVisit(VISIT, story(...CHARGE, ...steps), payloadProblem);
const check = (difference: string | null): CheckedBill => ({
  by: 'guest',
  since: '2025-01-01',
  tariffId: idOf(50),
  currency: 'EUR',
  lines: [],
  total: '20.00',
  tax: null,
  difference: difference === null ? null : { known: true, value: difference },
  explanations: [],
  guest: null,
  question: null,
  query: null,
});
const TODAY = '2025-10-20';
const said = (v: ReturnType<typeof visit>, checked: CheckedBill | null = null) =>
  openItems(v, checked, TODAY).map((i) => `${i.kind} ${i.since} ${i.days}: ${i.what}`);

describe('a hold', () => {
  it('stands until somebody says on which day it was released; the last word counts', () => {
    expect(holdsOf(visit(), TODAY)).toEqual([{ id: HOLD, t: Date.parse('2025-10-14T11:52:30Z'), amount: '40', currency: 'EUR', released: null, days: 6 }]);
    expect(holdsOf(visit(released('2025-10-17')), TODAY)).toMatchObject([{ released: '2025-10-17', days: 3 }]);
    expect(holdsOf(visit(released('2025-10-17'), [200_100, 'hold_released', { hold: HOLD, on: '2025-10-16' }]), TODAY)).toMatchObject([{ days: 2 }]);
  });
  it('is released by a word about it as another phone saw it', () => {
    const [MINE, THEIRS] = [idOf(500), idOf(501)];
    const look: Step = [32, 'means_shown', { ...CARD, holdAmount: '40', currency: 'EUR' }, { deviceId: SECOND_PHONE, role: 'observer', seq: 90, id: THEIRS }];
    const two = (hold: string) => deriveVisit(VISIT, story(...CHARGE, look, released('2025-10-17', hold)), payloadProblem);
    expect(holdsOf(two(THEIRS), TODAY)).toMatchObject([{ id: HOLD, released: '2025-10-17' }]);
    expect(holdsOf(two(MINE), TODAY)).toMatchObject([{ released: null }]);
  });
  it('is not released by a word about another, nor before it was made', () => {
    expect(holdsOf(visit(released('2025-10-17', idOf(103))), TODAY)).toMatchObject([{ released: null }]);
    expect(holdsOf(visit(released('2025-10-01')), TODAY)).toMatchObject([{ days: 0 }]);
  });
  it('each showing may hold anew; nothing held is no hold', () => {
    const v = deriveVisit(
      VISIT,
      story(
        IN,
        [10, 'means_shown', { ...CARD, holdAmount: '0' }],
        [20, 'means_shown', { ...CARD, holdAmount: '50' }],
        [30, 'means_accepted', { ...CARD, holdAmount: '1' }],
      ),
      payloadProblem,
    );
    expect(holdsOf(v, TODAY).map((h) => [h.amount, h.currency])).toEqual([
      ['50', null],
      ['1', null],
    ]);
  });
});

describe('what is open about money', () => {
  it('a charge without a bill, with what it should come to; a parking ticket is no such bill', () => {
    expect(said(visit(released('2025-10-15')))).toEqual(['no_bill 2025-10-14 6: no bill yet']);
    expect(said(visit(released('2025-10-15'), bill('3', { what: 'parking' })), check(null))).toEqual(['no_bill 2025-10-14 6: no bill yet, estimated €20.00']);
  });
  it('a bill of which another amount was brought in than was noted, until somebody has looked into it', () => {
    const brought = (amount: string): Step => [...bill(amount).slice(0, 3), { origin: 'imported', deviceId: idOf(60) }] as never;
    const rest = [released('2025-10-15'), brought('23.25')];
    expect(said(visit(...rest, bill('20')))).toEqual(['differs 2025-10-14 6: €23.25 brought in, another amount than counts, not looked into']);
    expect(said(visit(released('2025-10-15'), brought('20.0'), bill('20')))).toEqual([]);
    for (const state of ['checked', 'settled']) expect(said(visit(...rest, bill('20', { state })))).toEqual([]);
    expect(openMoney(visit(...rest, bill('20')))).toEqual(['differs']);
    expect(openMoney(visit(...rest, bill('20', { state: 'queried' })))).toEqual(['queried']);
    expect(openMoney(visit(...rest))).toEqual([]);
  });
  it('a bill that is pending, or queried, since its state was set', () => {
    const events = story(...CHARGE, released('2025-10-15'), bill('20'));
    const id = events.at(-1)?.id as string;
    const corrected = [
      ...events,
      ...story([3 * 86_400, 'correction', { target: id, set: { state: 'queried' } }]).map((e) => ({ ...e, id: idOf(300), seq: 90 })),
    ];
    const v = deriveVisit(VISIT, corrected, payloadProblem);
    expect(said(v, check('4.00'))).toEqual(['queried 2025-10-17 3: €20.00, queried']);
    expect(said(visit(released('2025-10-15'), bill('20', { state: 'pending' })), check('4.00'))).toEqual(['pending 2025-10-14 6: €20.00, pending']);
  });
  it.each([
    ['4.00', 'charged', ['off 2025-10-14 6: €4.00 over the price on file, not looked into']],
    ['-0.50', 'charged', ['off 2025-10-14 6: €0.50 under the price on file, not looked into']],
    ['0.00', 'charged', []],
    ['4.00', 'checked', []],
    ['4.00', 'settled', []],
    ['4.00', 'refunded', []],
  ])('a difference of %s on a bill that is %s', (difference, state, open) => {
    expect(said(visit(released('2025-10-15'), bill('24', { state })), check(difference))).toEqual(open);
  });
  it('a hold, and all of it together, the longest open first', () => {
    const items = openItems(visit(), null, TODAY);
    expect(items.map((i) => i.what)).toEqual(['no bill yet', '€40.00 held back, not noted as released']);
    expect(
      [
        { ...items[0], days: 2 },
        { ...items[1], days: 9 },
      ]
        .sort((a, b) => longestFirst(a as never, b as never))
        .map((i) => i.days),
    ).toEqual([9, 2]);
    expect([openFor({ days: 0 } as never), openFor({ days: 1 } as never), openFor({ days: 40 } as never)]).toEqual(['today', '1 day', '40 days']);
  });
  it('is kept as a figure by the record alone', () => {
    expect(openMoney(visit())).toEqual(['no_bill', 'hold']);
    expect(openMoney(visit(released('2025-10-15'), bill('20')))).toEqual([]);
    expect(openMoney(visit(bill('20', { state: 'pending' }), bill('1', { state: 'queried' })))).toEqual(['pending', 'queried', 'hold']);
    expect(openMoney(deriveVisit(VISIT, story(IN, [60, 'pulled_out', { reason: 'queue' }]), payloadProblem))).toEqual([]);
  });
});
