import { type MileRecord, RECORDS } from '../records/record-schema';
import type { RecordType } from '../records/record-types';
import { deriveVisit } from '../visit/derive';
import { CARD, IN, idOf, KW, SITE, STALL_A, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { CAUSES } from './bill-check';
import { chargedAttempts } from './charged-visit';
import { type BillRecords, billVerdict, checkedBill } from './checked-bill';
import { NO_PRICE, objectOfPlain, oneLineOf, type PlainPrice } from './plain-price';

const NETWORK = idOf(40);
const record = <T extends RecordType>(type: T, n: number, fields: object): MileRecord<T> =>
  ({ type, id: idOf(n), rev: 1, archived: false, fields: RECORDS[type].parse(fields) }) as MileRecord<T>;
const price = (n: number, p: Partial<PlainPrice>, more: object = {}): MileRecord<'tariff'> => {
  const whole = { ...NO_PRICE, ...p };
  const { tariff, extra } = objectOfPlain(whole, { id: idOf(n), currency: 'EUR', day: '2025-01-01' });
  return record('tariff', n, { networkId: NETWORK, currency: 'EUR', ...oneLineOf(whole), tariff, extra, validFrom: '2025-01-01', ...more });
};
const around = (...tariffs: MileRecord<'tariff'>[]): BillRecords => ({
  site: record('site', 7, { networkId: NETWORK, name: 'Vrba Crossing', zone: 'Europe/Ljubljana' }),
  network: 'Saltmarsh Rapid',
  stalls: [record('stall', 8, { siteId: SITE, name: '2', outlets: [{ connector: 'CCS2', ratedKW: 150 }] })],
  tariffs,
  sites: [],
  plans: [],
  means: [],
  providers: [],
});
const visitOf = (...steps: Step[]) => deriveVisit(VISIT, story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...steps), payloadProblem);
/** A charge of thirty minutes from 13:53:00 on, 20 kWh in the first ten minutes, 40 at the end, then ten minutes parked. */
const CHARGE: Step[] = [
  [20, 'plugged'],
  [30, 'means_shown', { ...CARD, holdAmount: '50', currency: 'EUR' }],
  [60, 'power_seen', KW],
  [660, 'reading', { screen: 'stall', kWh: '20' }],
  [1860, 'power_gone', {}],
  [1860, 'reading', { screen: 'stall', kWh: '40' }],
  [2460, 'unplugged'],
  [2500, 'pulled_out', { reason: 'enough' }],
];
/** A try that the network failed, before the charge; and one after which the driver left. */
const FAILED: Step[] = [
  [10, 'plugged'],
  [12, 'means_shown', CARD],
  [15, 'fault', { code: 'start_error', side: 'network' }],
  [18, 'unplugged'],
];
const GAVE_UP: Step[] = [...FAILED, [20, 'pulled_out', { reason: 'gave_up' }]];
const bill = (amount: string, more: object = {}): Step => [3000, 'bill', { sessions: [], amount, currency: 'EUR', state: 'charged', ...more }];
const check = (tariffs: MileRecord<'tariff'>[], ...steps: Step[]) => {
  const found = checkedBill(visitOf(...CHARGE, ...steps), around(...tariffs));
  if (!found || 'unpriced' in found) throw new Error(found?.unpriced ?? 'no price');
  return found;
};
const causes = (...of: Parameters<typeof check>) => check(...of).explanations.map((e) => [e.cause, e.fit]);

describe('the sessions of a visit as they are priced', () => {
  it('run from power to the end of charging, energy even between readings, then parked until unplugged', () => {
    const found = chargedAttempts(visitOf(...CHARGE));
    expect(found.known && found.value.map((a) => [a.kWh, a.timed, a.session.periods.map((p) => [(p.end - p.start) / 60_000, p.kwh, p.charging])])).toEqual([
      [
        '40',
        true,
        [
          [10, 20, true],
          [20, 20, true],
          [10, 0, false],
        ],
      ],
    ]);
  });
  it('are of whole milliseconds where the phone’s clock jumped and its touches lie between two of them', () => {
    // The wall clock is put on by a minute at the first reading; the page's own clock counts tenths of a millisecond.
    const events = story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...CHARGE).map((e, i) => ({
      ...e,
      at: e.at + (i >= 5 ? 60_000 : 0),
      mono: e.mono + ((i * 3) % 10) / 10,
    }));
    const visit = deriveVisit(VISIT, events, payloadProblem);
    expect(visit.line.some((e) => !Number.isInteger(e.t))).toBe(true);
    const found = chargedAttempts(visit);
    if (!found.known) throw new Error(found.why);
    const periods = found.value.flatMap((a) => a.session.periods);
    expect(periods.flatMap((p) => [p.start, p.end]).every(Number.isInteger)).toBe(true);
    expect(periods.map((p) => Math.round((p.end - p.start) / 60_000))).toEqual([10, 20, 10]);
    const priced = checkedBill(visit, around(price(60, { perKWh: '0.50', perMin: '0.10' })));
    expect(priced && 'total' in priced && priced.total).toBe('23.00');
  });
  it('pauses are parked, and nothing is lost in rounding', () => {
    const found = chargedAttempts(
      visitOf(
        [60, 'power_seen', KW],
        [660, 'power_gone', {}],
        [960, 'power_seen', KW],
        [1260, 'power_gone', { asked: true }],
        [1260, 'reading', { screen: 'stall', kWh: '10.001' }],
        [1300, 'unplugged'],
      ),
    );
    const periods = found.known ? (found.value[0]?.session.periods ?? []) : [];
    expect(periods.map((p) => [(p.end - p.start) / 60_000, p.kwh, p.charging])).toEqual([
      [10, 6.667, true],
      [5, 0, false],
      [5, 3.334, true],
      [40 / 60, 0, false],
    ]);
  });
  it('a pause over all of it loses no energy', () => {
    const found = chargedAttempts(
      visitOf(
        [60, 'power_seen', KW],
        [60, 'power_gone', {}],
        [660, 'power_seen', KW],
        [660, 'power_gone', { asked: true }],
        [660, 'reading', { screen: 'stall', kWh: '5' }],
        [700, 'unplugged'],
      ),
    );
    const kWh = found.known ? found.value.flatMap((a) => a.session.periods).reduce((s, p) => s + p.kwh, 0) : null;
    expect(kWh).toBe(5);
  });
  it('are unknown where the kWh were not read to the end, none where there was none', () => {
    expect(chargedAttempts(visitOf([60, 'power_seen', KW], [660, 'reading', { screen: 'stall', kW: 90, kWh: '9' }], [1860, 'power_gone', {}]))).toMatchObject({
      known: false,
    });
    expect(chargedAttempts(visitOf([20, 'plugged']))).toEqual({ known: true, value: [] });
    expect(checkedBill(visitOf([20, 'plugged']), around(price(50, { perKWh: '0.5' })))).toBeNull();
    expect(checkedBill(visitOf(...CHARGE), around())).toBeNull();
  });
});

const TWO: Step[] = [
  [60, 'power_seen', KW],
  [1260, 'power_gone', { asked: true }],
  [1300, 'unplugged'],
  [1400, 'plugged'],
  [1500, 'power_seen', KW],
  [2100, 'power_gone', { asked: true }],
  [2200, 'unplugged'],
  [2300, 'pulled_out', { reason: 'enough' }],
];

describe('a visit of several sessions', () => {
  it('shares what one bill says for both by their time, and rounds once', () => {
    const visit = visitOf(...TWO, bill('16.21', { kWh: '30.01' }));
    const found = chargedAttempts(visit);
    expect(found.known && found.value.map((a) => a.kWh)).toEqual(['20.007', '10.003']);
    expect(checkedBill(visit, around(price(50, { perKWh: '0.50', startFee: '0.60' })))).toMatchObject({ total: '16.21', explanations: [] });
  });
  // 10.0035 and 5.0015 are 15.00 where each is rounded, 15.01 together.
  const each = (n: 1 | 2, more: object = {}) =>
    n === 1 ? bill('10.00', { kWh: '20.007', sessions: [idOf(102)], ...more }) : bill('5.00', { kWh: '10.003', sessions: [idOf(106)], ...more });
  it('rounds each where each was billed by itself, a refund not counted', () => {
    const total = (...steps: Step[]) => {
      const found = checkedBill(visitOf(...TWO, ...steps), around(price(50, { perKWh: '0.50' })));
      return found && ('unpriced' in found ? found.unpriced : found.total);
    };
    expect(total(each(1), each(2))).toBe('15.00');
    expect(total(bill('15.01', { kWh: '30.01' }))).toBe('15.01');
    expect(total(bill('15.01', { kWh: '30.01' }), bill('1.00', { state: 'refunded' }))).toBe('15.01');
    expect(total(each(1), each(2), bill('1.00', { state: 'refunded' }))).toBe('15.00');
  });
  it('says of each line which session it is of, of no tax that there is one, and writes to the network from the first to the last', () => {
    const found = checkedBill(visitOf(...TWO, each(1), each(2, { amount: '9.00', ref: 'No. 8' })), around(price(50, { perKWh: '0.40', taxOnTop: '25' })));
    if (!found || 'unpriced' in found) throw new Error('unpriced');
    expect(found.lines.map((l) => l.label)).toEqual(['Energy, session 1', 'Tax on top, session 1', 'Energy, session 2', 'Tax on top, session 2']);
    expect(found.tax).toBeNull();
    expect(found.query).toContain('from 13:53 to 14:28.');
    expect(found.query).toContain('I was charged €19.00 (No. 8).');
    const one = checkedBill(visitOf(...CHARGE), around(price(50, { perKWh: '0.40', taxOnTop: '25' })));
    expect(one && 'tax' in one && one.tax).toBe('4.00');
  });
  it('rounds each of them, however the sum comes out', () => {
    const visit = visitOf(...TWO, bill('7.02', { kWh: '20.007', sessions: [idOf(102)] }), bill('3.51', { kWh: '10.003', sessions: [idOf(106)] }));
    expect(checkedBill(visit, around(price(50, { perKWh: '0.351' })))).toMatchObject({ total: '10.53', difference: { known: true, value: '0.00' } });
  });
});

describe('a bill against the price on file', () => {
  const half = price(50, { perKWh: '0.50', startFee: '0.60' });
  it('is worked out line by line, with the price of its day', () => {
    const newer = price(51, { perKWh: '0.90' }, { validFrom: '2025-10-15' });
    expect(check([half, newer], bill('20.60'))).toMatchObject({
      by: 'guest',
      since: '2025-01-01',
      lines: [
        { label: 'Start', amount: '0.60' },
        { label: 'Energy', how: '40.0 kWh × 0.50 per kWh, 13:53 to 14:23', amount: '20.00' },
      ],
      total: '20.60',
      difference: { known: true, value: '0.00' },
      explanations: [],
      query: null,
    });
  });
  it('knows idle, overstay and times of day', () => {
    const all = price(50, {
      perKWh: '0.50',
      windows: [{ from: '14:03', to: '18:00', days: 'all', perKWh: '0.80' }],
      idlePerMin: '0.10',
      idleAfterMin: '4',
      overstayFee: '3',
      overstayAfterMin: '39',
    });
    expect(check([all]).total).toBe('29.60');
    expect(check([all], bill('26.00')).explanations[0]).toMatchObject({ cause: 'idle_or_overstay', fit: 'exact' });
  });
  it('of a visit of which only the day is known prices energy, not minutes', () => {
    const day = { precision: 'day' as const };
    const typed: Step[] = [
      [0, 'power_seen', KW, day],
      [0, 'reading', { screen: 'stall', kWh: '20' }, day],
      [0, 'power_gone', { asked: true }, day],
      [0, 'pulled_out', { reason: 'enough' }, day],
    ];
    const visit = deriveVisit(VISIT, story([0, 'pulled_in', { siteId: SITE }, day], ...typed), payloadProblem);
    expect(checkedBill(visit, around(half))).toMatchObject({ total: '10.60' });
    expect(checkedBill(visit, around(price(50, { perKWh: '0.5', idlePerMin: '0.1' })))).toEqual({
      unpriced: 'the price depends on times that were not recorded',
    });
  });
  it('in another currency is not compared', () => {
    expect(check([half], bill('20.60', { currency: 'CHF' })).difference?.known).toBe(false);
  });

  // Each by hand: 40 kWh × 0.50 + 0.60 = 20.60.
  it.each<[string, PlainPrice | Partial<PlainPrice>, Step[], string]>([
    ['start_twice', {}, [bill('21.20')], 'exact'],
    ['rounding', {}, [bill('20.61')], 'exact'],
    ['other_kwh', {}, [bill('22.10', { kWh: '43' })], 'exact'],
    ['idle_or_overstay', { idlePerMin: '0.10' }, [bill('22.10')], 'about'],
    ['idle_or_overstay', { overstayFee: '10', overstayAfterMin: '90' }, [bill('30.60')], 'exact'],
    ['tax_missing', { taxOnTop: '20' }, [bill('20.60')], 'exact'],
    ['tax_twice', { taxOnTop: '20' }, [bill('29.66')], 'exact'],
    ['other_price', {}, [[25, 'price_shown', { where: 'post', text: '0.55', perKWh: '0.55', currency: 'EUR' }], bill('22.60')], 'exact'],
  ])('%s', (cause, p, steps, fit) => {
    expect(causes([price(50, { perKWh: '0.50', startFee: '0.60', ...p })], ...steps)).toContainEqual([cause, fit]);
  });
  it('says in words what would give the amount', () => {
    const text = (p: Partial<PlainPrice>, ...steps: Step[]) =>
      check([price(50, { perKWh: '0.50', startFee: '0.60', ...p })], ...steps).explanations.map((e) => e.text);
    expect(text({}, bill('21.20', { kWh: '40' }))).toEqual(['The start fee was taken once more: €20.60 + €0.60 = €21.20.']);
    expect(text({}, bill('23.10', { kWh: '45' }))).toEqual(['45.0 kWh were billed, 40.0 kWh read: at the same price €23.10.']);
    expect(text({}, bill('21.80', { kWh: '42.4' }))).toEqual([
      '42.4 kWh were billed, 40.0 kWh read: at the same price €21.80. A meter on the AC side reads 5 to 8 % more than the car gets.',
    ]);
    expect(text({ idlePerMin: '0.10', idleAfterMin: '15' }, bill('21.40'))).toEqual(['8 more idle minutes at €0.10 make the €0.80.']);
    expect(text({ overstayFee: '10', overstayAfterMin: '90' }, bill('30.60'))).toEqual([
      'The overstay fee was taken: €20.60 + €10.00, though the car stood less than 90 min.',
    ]);
    expect(text({ taxOnTop: '20' }, bill('20.60'))).toEqual(['Tax is missing: €24.72 are €20.60 without it.']);
    expect(text({ taxOnTop: '20' }, bill('29.66'))).toEqual(['Tax was added twice: €24.72 and once more the same share is €29.66.']);
    expect(text({}, bill('20.61'))).toEqual(['€0.01 apart: lines rounded one by one can differ by so much.']);
    expect(text({}, bill('20.63'))).toEqual([]);
  });
  it('fits about where it comes much nearer, and not where it does not', () => {
    expect(causes([half], bill('21.29'))).toEqual([['start_twice', 'about']]);
    expect(causes([half], bill('21.31'))).toEqual([]);
    expect(causes([half], bill('20.89'))).toEqual([]);
  });
  it('a try without power that was billed; several causes that fit are all told', () => {
    const visit = visitOf(...FAILED, ...CHARGE, bill('21.20'));
    const found = checkedBill(visit, around(half));
    expect(found && 'explanations' in found && found.explanations.map((e) => e.cause)).toEqual(['start_twice', 'failed_billed']);
    const two = visitOf(
      ...FAILED,
      [19, 'plugged'],
      [19.5, 'means_shown', CARD],
      [19.7, 'fault', { code: 'start_error', side: 'network' }],
      [19.9, 'unplugged'],
      ...CHARGE,
      bill('21.80'),
    );
    const both = checkedBill(two, around(half));
    expect(both && 'explanations' in both && both.explanations.map((e) => e.text)).toEqual([
      'The 2 tries without power cost a start fee each: €20.60 + 2 × €0.60 = €21.80.',
    ]);
  });
  it('another stall’s price', () => {
    const other = record('site', 70, { networkId: NETWORK, name: 'Gail Orchard', zone: 'Europe/Vienna' });
    const own = price(51, { perKWh: '0.70' }, { siteId: other.id });
    const visit = visitOf(...CHARGE, bill('28.00'));
    const found = checkedBill(visit, { ...around(half, own), sites: [other] });
    expect(found && 'explanations' in found && found.explanations).toEqual([
      { cause: 'wrong_stall', fit: 'exact', text: 'At Gail Orchard the same would cost €28.00: the bill may be for another stall.' },
    ]);
  });
  it('with a plan held that day: its price, and the guest’s where it was taken instead', () => {
    const plan = record('plan', 60, { name: 'Copper plan', networkId: NETWORK, currency: 'EUR', from: '2025-10-01' });
    const member = price(52, { perKWh: '0.40' }, { planId: plan.id });
    const found = checkedBill(visitOf(...CHARGE, bill('20.60')), { ...around(half, member), plans: [plan] });
    expect(found).toMatchObject({ by: 'Copper plan', total: '16.00', guest: '20.60', explanations: [{ cause: 'member_price', fit: 'exact' }] });
  });
  it('through a provider, where the means that was accepted is theirs', () => {
    const provider = record('provider', 61, { name: 'Workshop roaming' });
    const means = record('means', 62, { kind: 'rfid', label: 'Tag', providerId: provider.id });
    const roaming = price(53, { perKWh: '0.80' }, { providerId: provider.id });
    const steps = CHARGE.map((s): Step => (s[1] === 'means_shown' ? [30, 'means_shown', { meansKind: 'rfid', meansId: means.id }] : s));
    const records = { ...around(half, roaming), providers: [provider], means: [means] };
    expect(checkedBill(visitOf(...steps), records)).toMatchObject({ by: 'Workshop roaming', total: '32.00' });
    expect(checkedBill(visitOf(...CHARGE), records)).toMatchObject({ by: 'guest' });
  });
  it('where no power came is nothing, and a bill is asked about', () => {
    const found = checkedBill(visitOf(...GAVE_UP, bill('0.60')), around(half));
    expect(found).toMatchObject({
      lines: [],
      total: '0.00',
      difference: { known: true, value: '0.60' },
      explanations: [{ cause: 'failed_billed', fit: 'exact' }],
    });
    expect(found && 'query' in found && found.query).toContain(
      'I charged at Vrba Crossing, stall 2 on 14 Oct 2025 at 13:52, 0.0 kWh by the stall.\nI was charged €0.60. By your price it should be €0.00.',
    );
    expect(checkedBill(visitOf(...GAVE_UP, bill('0.60', { state: 'refunded' })), around(half))).toMatchObject({ explanations: [], query: null });
    expect(checkedBill(visitOf(...GAVE_UP), around(half))).toBeNull();
    expect(checkedBill(visitOf([10, 'plugged'], bill('0.60')), around(half))).toEqual({ unpriced: 'no charge was noted that it could be for' });
  });
  it('a bill of less is not asked about', () =>
    expect(check([half], bill('15.00'))).toMatchObject({ difference: { known: true, value: '-5.60' }, query: null }));
  it('the price shown last counts, in the currency of the price on file', () => {
    const shown = (perKWh: string | undefined, more: object = {}): Step => [
      25,
      'price_shown',
      { where: 'post', text: 'x', ...(perKWh ? { perKWh } : {}), ...more },
    ];
    const other = [['other_price', 'exact']];
    expect(causes([half], shown('0.40'), shown('0.55'), bill('22.60'))).toEqual(other);
    expect(causes([half], shown('0.55'), shown(undefined), bill('22.60'))).toEqual(other);
    expect(causes([half], shown('0.55', { currency: 'CHF' }), bill('22.60'))).toEqual([]);
    expect(causes([half], shown('0.55', { currency: 'EUR' }), shown('0.40', { currency: 'CHF' }), bill('22.60'))).toEqual(other);
  });
  it('names the stall that was charged at, by its plate too', () => {
    const two = {
      ...around(price(50, { perMin: '0.5' })),
      stalls: [record('stall', 9, { siteId: SITE, name: '3', outlets: [{ connector: 'Type 2', ratedKW: 22 }] }), ...around().stalls],
    };
    const found = checkedBill(visitOf(...CHARGE, bill('90.00')), two);
    expect(found).toMatchObject({ question: expect.stringMatching(/^May a guest/), query: expect.stringContaining('Vrba Crossing, stall 2 on') });
  });
  it('a try that was given up had no power either', () => {
    const left: Step[] = [
      [10, 'plugged'],
      [12, 'means_shown', CARD],
      [20, 'pulled_out', { reason: 'gave_up' }],
    ];
    const found = checkedBill(visitOf(...left, bill('0.60')), around(half));
    expect(found).toMatchObject({ total: '0.00', explanations: [{ cause: 'failed_billed' }] });
  });
  it('is right, off, or neither', () => {
    const verdict = (tariffs: MileRecord<'tariff'>[], ...steps: Step[]) => billVerdict(visitOf(...CHARGE, ...steps), around(...tariffs));
    expect([verdict([half], bill('20.60')), verdict([half], bill('20.61')), verdict([half], bill('20.59'))]).toEqual(['right', 'off', 'off']);
    expect([verdict([half]), verdict([], bill('20.60')), verdict([half], bill('20.60', { currency: 'CHF' }))]).toEqual([null, null, null]);
    // Bills in two currencies have no sum.
    expect(verdict([half], bill('20.60'), bill('1.00', { currency: 'CHF' }))).toBeNull();
    const of = (...steps: Step[]) => billVerdict(visitOf(...steps), around(half));
    expect([of(...GAVE_UP, bill('0.60')), of(...GAVE_UP, bill('0.00')), of([10, 'plugged'], bill('0.60')), of(bill('0.60'))]).toEqual([
      'off',
      'right',
      null,
      null,
    ]);
    // What was charged is known, how many kWh is not.
    expect(of([60, 'power_seen', KW], [1860, 'power_gone', {}], [2500, 'pulled_out', { reason: 'enough' }], bill('20.60'))).toBeNull();
  });
  it('with no cause that is known says none, and drafts a query all the same', () => {
    const found = check([half], bill('33.33', { ref: 'No. 7' }));
    expect(found.explanations).toEqual([]);
    expect(found.query).toBe(
      [
        'To Saltmarsh Rapid',
        '',
        'I charged at Vrba Crossing, stall 2 on 14 Oct 2025 from 13:53 to 14:33, 40.0 kWh by the stall.',
        'I was charged €33.33 (No. 7). By your price it should be €20.60:',
        '- Start: €0.60',
        '- Energy, 40.0 kWh × 0.50 per kWh, 13:53 to 14:23: €20.00',
        '',
        'Please check this bill and refund the difference, or tell me how it comes about.',
      ].join('\n'),
    );
  });
  it('a likely cause stands in the query', () =>
    expect(check([half], bill('21.20')).query).toContain('The start fee was taken once more: €20.60 + €0.60 = €21.20.'));
  it('what may not be allowed is asked, by place, power and day', () => {
    const minutes = price(50, { perMin: '0.5' });
    expect(check([minutes]).question).toMatch(/^May a guest be asked a price a minute of charging here\?/);
    expect(check([half]).question).toBeNull();
    expect(check([price(50, { perKWh: '0.5', idlePerMin: '0.2' })]).question).toBeNull();
    const slow = { ...around(minutes), stalls: [record('stall', 8, { siteId: SITE, name: '2', outlets: [{ connector: 'Type 2', ratedKW: 22 }] })] };
    expect(checkedBill(visitOf(...CHARGE), slow)).toMatchObject({ question: null });
  });
});

it('every cause has a name', () => expect(new Set(CAUSES).size).toBe(10));
