import { RECORDS } from '../records/record-schema';
import { sessionOf } from './fixtures/sessions';
import { NO_PRICE, objectOfPlain, oneLineOf, type PlainPrice } from './plain-price';
import { type PlanVisit, paysFrom, planMonths, planSentence, pricedBothWays, twelveMonths } from './plan-months';
import {
  byCost,
  leastOf,
  nearSentence,
  PLAIN_STOP,
  perBatteryKWh,
  type StopSite,
  sameStopSentence,
  stopKWh,
  stopMinutes,
  stopPrices,
  usualStop,
} from './same-stop';
import { sameStopCsv } from './same-stop-csv';
import { readStopAsk, stopOfAddress, writeStopAsk } from './stop-address';
import type { KeptTariff } from './tariff-on';

const NETWORK = '01900000-0000-7000-8000-000000000001';
const price = (p: Partial<PlainPrice>, more: object = {}): KeptTariff => {
  const whole = { ...NO_PRICE, ...p };
  const { tariff, extra } = objectOfPlain(whole, { id: 't', currency: 'EUR', day: '2025-01-01' });
  return { id: 't', ...RECORDS.tariff.parse({ networkId: NETWORK, currency: 'EUR', ...oneLineOf(whole), tariff, extra, validFrom: '2025-01-01', ...more }) };
};
const site = (more: Partial<StopSite> = {}): StopSite => ({ id: 's', zone: 'Europe/Ljubljana', ac: 0, dc: 150, ownKW: null, ...more });
const CAR = { ac: 11, dc: 120, usableKWh: 62 };
/** A Tuesday at 17:00. */
const START = Date.parse('2025-10-14T15:00:00Z');
const STOP = { kWh: 40, weekday: 2, time: '17:00', parkedMin: 0 };
const at = (offers: { name: string; tariff: KeptTariff; before?: KeptTariff }[], of: Partial<StopSite> = {}, stop = STOP) =>
  stopPrices(stop, CAR, 'EUR')(site(of), START, offers);
const guest = (p: Partial<PlainPrice>) => [{ name: '', tariff: price(p) }];

describe('the usual stop', () => {
  const visits = (n: number, kWh: (i: number) => number) =>
    Array.from({ length: n }, (_, i) => ({ kWh: kWh(i), day: `2025-10-${String(7 + (i % 3 === 0 ? 0 : 1)).padStart(2, '0')}`, hour: 8 + i }));
  it('is the middle of what was delivered, on the commonest day, at the middle hour', () => {
    expect(usualStop(visits(5, (i) => 20 + i * 3.33))).toEqual({ kWh: 26.7, weekday: 3, time: '10:00', parkedMin: 0 });
    expect(usualStop(visits(5, (i) => [50, 20, 45, 30, 10][i] as number)).kWh).toBe(30);
  });
  it('is a plain one where too little is known', () => {
    expect(usualStop([])).toEqual(PLAIN_STOP);
    expect(usualStop(visits(3, (i) => (i === 0 ? 0 : 30)))).toEqual(PLAIN_STOP);
    expect(usualStop(visits(3, () => 30))).toEqual({ kWh: 30, weekday: 3, time: '09:00', parkedMin: 0 });
  });
  it('is read from the address, whatever stands there', () => {
    const read = (q: Record<string, string>) => readStopAsk((name) => q[name]);
    expect(read({ kwh: '37,2', day: '0', time: '07:30', parked: '12.4', car: 'x' })).toEqual({ kWh: 37.2, weekday: 0, time: '07:30', parkedMin: 12, car: 'x' });
    expect(read({ kwh: 'NaN', day: '7', time: '25:00', parked: '-1' })).toEqual({});
    expect(read({ kwh: '0', day: '1.5', time: '7:30', parked: '99999' })).toEqual({});
    expect(read({ from: 'a site', within: '30' })).toEqual({ from: 'a site', within: 30 });
    expect(read({ within: '0.5' })).toEqual({});
    expect(read({})).toEqual({});
    expect(read({ minutes: '30.4', from_pct: '20', to_pct: '80,5' })).toEqual({ minutes: 30, levels: { fromPct: 20, toPct: 80.5 } });
    expect(read({ minutes: '0', from_pct: '80', to_pct: '80' })).toEqual({});
    expect(read({ from_pct: '20' })).toEqual({});
  });
  it('is kept as its address, and found again', () => {
    const ask = { kWh: 37.2, levels: { fromPct: 20, toPct: 80 }, minutes: 30, weekday: 0, time: '07:30', parkedMin: 12, car: 'x', from: 'a site', within: 30 };
    expect(writeStopAsk(ask)).toBe('?kwh=37.2&from_pct=20&to_pct=80&minutes=30&day=0&time=07%3A30&parked=12&car=x&within=30&from=a+site');
    expect(stopOfAddress(writeStopAsk(ask))).toEqual(ask);
    expect([writeStopAsk({}), stopOfAddress(''), stopOfAddress('?evil=1&kwh=<b>')]).toEqual(['', {}, {}]);
  });
});

describe('how long it takes at a site', () => {
  it('by its own past power, else by the lesser of plate and car at the best stall', () => {
    const takes = (kWh: number, of: Partial<StopSite>, car = CAR) => {
      const found = stopMinutes({ kWh }, site(of), car);
      return found && [found.minutes, found.by, found.current, found.kWh];
    };
    expect(takes(40, { ownKW: { kW: 60, n: 3 } })).toEqual([40, 'own', 'dc', 40]);
    expect(takes(40, { ownKW: { kW: 60, n: 2 } })).toEqual([20, 'car', 'dc', 40]);
    expect(takes(40, { dc: 50 })).toEqual([48, 'plate', 'dc', 40]);
    expect(takes(40, { dc: 50 }, { ac: null, dc: null, usableKWh: null } as never)).toEqual([48, 'plate', 'dc', 40]);
    // A post of 43 kW is 11 kW for a car that takes no more from the wall.
    expect(takes(11, { dc: 0, ac: 43 })).toEqual([60, 'car', 'ac', 11]);
    expect(takes(11, { dc: 0, ac: 43, ownKW: { kW: 11, n: 3 } })).toEqual([60, 'own', 'ac', 11]);
    // The better of its stalls for this car, whichever of the two that is.
    expect(takes(40, { dc: 50, ac: 22 })).toEqual([48, 'plate', 'dc', 40]);
    expect(takes(22, { dc: 20, ac: 22 }, { ...CAR, ac: 22 })).toEqual([60, 'plate', 'ac', 22]);
    expect(takes(40, { dc: 0 })).toBeNull();
    // A power of nothing is none: neither of past sessions nor of a car that takes none from there.
    expect(takes(40, { ownKW: { kW: 0, n: 3 } })).toEqual([20, 'car', 'dc', 40]);
    expect(takes(40, { dc: 0, ac: 22 }, { ...CAR, ac: 0 })).toBeNull();
  });
  it('from a level to another is what comes into the battery, by the meter of the outlet', () => {
    const levels = { fromPct: 20, toPct: 80 };
    // 60 % of 62 kWh are 37.2 kWh in the battery.
    expect(stopKWh({ kWh: 9, levels }, 62, 'dc')).toBeCloseTo(37.2 / 0.95, 9);
    expect(stopKWh({ kWh: 9, levels }, 62, 'ac')).toBeCloseTo(37.2 / 0.9, 9);
    expect(stopKWh({ kWh: 9, levels }, null, 'ac')).toBe(9);
    expect(stopKWh({ kWh: 9 }, 62, 'ac')).toBe(9);
    expect(stopMinutes({ kWh: 9, levels }, site({ dc: 50 }), CAR)).toMatchObject({
      minutes: expect.closeTo((37.2 / 0.95 / 50) * 60, 9),
      kWh: expect.closeTo(39.158, 3),
    });
  });
  it('is at least what is asked for, and longer where it is slow', () => {
    expect(stopMinutes({ kWh: 40, minutes: 60 }, site({ dc: 50 }), CAR)).toMatchObject({ minutes: 60, by: 'said' });
    expect(stopMinutes({ kWh: 40, minutes: 30 }, site({ dc: 50 }), CAR)).toMatchObject({ minutes: 48, by: 'plate' });
    expect(stopMinutes({ kWh: 40, minutes: 48 }, site({ dc: 50 }), CAR)).toMatchObject({ minutes: 48, by: 'plate' });
  });
});

describe('one stop at a site', () => {
  it('is made of parts, by guests and by the cheapest of the plans', () => {
    const found = at([
      ...guest({ perKWh: '0.50', startFee: '1', perMin: '0.10' }),
      { name: 'Dear', tariff: price({ perKWh: '0.60' }) },
      { name: 'Good', tariff: price({ perKWh: '0.40' }) },
    ]);
    expect(found).toMatchObject({
      minutes: { minutes: 20, by: 'car', current: 'dc' },
      why: null,
      guest: {
        total: '23.00',
        parts: [
          ['energy', 20],
          ['minutes', 2],
          ['start', 1],
        ],
      },
      held: { name: 'Good', total: '16.00' },
    });
    expect(leastOf(found)).toBe(16);
    // Guests have no price where only plans have one, and come second as well as first.
    expect(at([{ name: 'Good', tariff: price({ perKWh: '0.40' }) }]).guest).toBeNull();
    expect(at([{ name: 'Good', tariff: price({ perKWh: '0.40' }) }, ...guest({ perKWh: '0.50' })]).guest?.total).toBe('20.00');
  });
  it('counts what one stays on for', () => {
    const fees = guest({ perKWh: '0.50', idlePerMin: '0.30', idleAfterMin: '10', overstayFee: '5', overstayAfterMin: '45', taxOnTop: '10' });
    expect(at(fees, {}, { ...STOP, parkedMin: 30 }).guest).toMatchObject({
      total: '34.10',
      parts: [
        ['energy', 20],
        ['idle', 6],
        ['overstay', 5],
        ['rest', 3.1],
      ],
      tariffId: 't',
      since: '2025-01-01',
      before: null,
    });
  });
  it('says why it cannot be priced', () => {
    const why = (...of: Parameters<typeof at>) => at(...of).why;
    expect(why([])).toBe('no price on file');
    expect(why([{ name: '', tariff: price({ perKWh: '1' }, { currency: 'EUR' }) }], { dc: 0 })).toBe('no power is noted, so the minutes are not known');
    const swiss = { ...price({ perKWh: '1' }), currency: 'CHF' };
    expect(why([{ name: '', tariff: swiss }])).toBe('priced in CHF');
    const late = price({ perKWh: '1' });
    expect(why([{ name: '', tariff: { ...late, tariff: late.tariff && { ...late.tariff, start_date_time: '2026-01-01T00:00:00Z' } } }])).toBe(
      'the price depends on what is not known',
    );
  });
  it('in one sentence, the cheapest first', () => {
    const name = (id: string) => id.toUpperCase();
    const money = (n: number) => n.toFixed(2);
    const all = [
      at(guest({ perKWh: '0.60' }), { id: 'b' }),
      at([], { id: 'd' }),
      at(guest({ perKWh: '0.50' }), { id: 'a' }),
      at(guest({ perKWh: '0.50', idlePerMin: '1' }), { id: 'c' }, { ...STOP, parkedMin: 30 }),
    ];
    expect(byCost(all).map((s) => s.siteId)).toEqual(['a', 'b', 'c', 'd']);
    expect(sameStopSentence(all, name, money)).toBe('This stop costs least at A, 20.00, and 30.00 more at C, where you stay past the grace.');
    expect(sameStopSentence(all.slice(0, 3), name, money)).toBe('This stop costs least at A, 20.00, and 4.00 more at B.');
    expect(sameStopSentence(all.slice(0, 1), name, money)).toBe('This stop costs least at B, 24.00: the one site with a price on file.');
    expect(sameStopSentence([at(guest({ perKWh: '0.5' })), at(guest({ perKWh: '0.5' }))], name, money)).toBe(
      'This stop costs the same, 20.00, at all 2 sites with a price on file.',
    );
    expect(sameStopSentence([at([])], name, money)).toMatch(/^No site has a price on file/);
    // A cent is a difference; and where both ask for standing on, that is not why one is dearer.
    const cent = [at(guest({ perKWh: '0.5' }), { id: 'a' }), at(guest({ perKWh: '0.50025' }), { id: 'b' })];
    expect(sameStopSentence(cent, name, money)).toBe('This stop costs least at A, 20.00, and 0.01 more at B.');
    const stays = ['0.2', '0.3'].map((idlePerMin, i) => at(guest({ perKWh: '0.5', idlePerMin }), { id: 'ab'.charAt(i) }, { ...STOP, parkedMin: 30 }));
    expect(sameStopSentence(stays, name, money)).toBe('This stop costs least at A, 26.00, and 3.00 more at B.');
    const over = [{}, { overstayFee: '5', overstayAfterMin: '45' }, { overstayFee: '5', overstayAfterMin: '45', startFee: '1' }].map((more, i) =>
      at(guest({ perKWh: '0.5', ...more }), { id: 'abc'.charAt(i) }, { ...STOP, parkedMin: 30 }),
    );
    expect(sameStopSentence(over.slice(0, 2), name, money)).toBe('This stop costs least at A, 20.00, and 5.00 more at B, where you stay past the grace.');
    expect(sameStopSentence(over.slice(1), name, money)).toBe('This stop costs least at B, 25.00, and 1.00 more at C.');
  });
  it('what the same came to by the price before, though that has ended; not where it was of another currency', () => {
    const [now, old] = [price({ perKWh: '0.60' }), price({ perKWh: '0.50' })];
    const ended = { ...old, tariff: old.tariff && { ...old.tariff, end_date_time: '2025-02-28T23:00:00Z' } };
    expect(at([{ name: '', tariff: now, before: ended }]).guest).toMatchObject({ total: '24.00', before: '20.00' });
    expect(at([{ name: '', tariff: now, before: { ...old, currency: 'CHF' } }]).guest?.before).toBeNull();
    expect(at([{ name: '', tariff: now }]).guest?.before).toBeNull();
    // One of a line of its own, without an object, too.
    expect(at([{ name: '', tariff: now, before: { ...old, tariff: null, extra: null } }]).guest?.before).toBe('20.00');
    expect(at([{ name: '', tariff: now, before: { ...old, tariff: null, extra: null, startFee: '1.50' } }]).guest?.before).toBe('21.50');
    // One that begins later, and held no more: what it asks is asked all the same.
    const later = { ...old, tariff: old.tariff && { ...old.tariff, start_date_time: '2026-01-01T00:00:00Z' } };
    expect(at([{ name: '', tariff: now, before: later }]).guest?.before).toBe('20.00');
  });
  it('site after site costs what it would by itself: alike only where place, power and price are', () => {
    const ended = (t: KeptTariff, end_date_time: string): KeptTariff => ({ ...t, tariff: t.tariff && { ...t.tariff, end_date_time } });
    const bounds = (t: KeptTariff, more: object): KeptTariff => ({ ...t, tariff: t.tariff && { ...t.tariff, ...more } });
    const byClock = price({ perKWh: '0.5', windows: [{ from: '16:00', to: '18:00', days: 'all', perKWh: '0.9' }] });
    const [plain, same] = [price({ perKWh: '0.5' }), price({ perKWh: '0.5' }, { validFrom: '2025-03-01' })];
    const prices = [
      plain,
      { ...same, id: 'other' },
      price({ perKWh: '0.6' }),
      price({ perKWh: '0.5', perMin: '0.1' }),
      price({ perKWh: '0.5', idlePerMin: '0.3' }),
      byClock,
      ended(plain, '2025-02-28T23:00:00Z'),
      ended(plain, '2026-02-28T23:00:00Z'),
      bounds(plain, { min_price: { excl_vat: 50 } }),
      bounds(plain, { max_price: { excl_vat: 5 } }),
    ];
    const places: Partial<StopSite>[] = [{}, { zone: 'Europe/London' }, { dc: 50 }, { dc: 0, ac: 22 }, { ownKW: { kW: 71, n: 4 } }];
    for (const stop of [
      { ...STOP, parkedMin: 20 },
      { ...STOP, levels: { fromPct: 20, toPct: 70 } },
    ]) {
      const oneForAll = stopPrices(stop, CAR, 'EUR');
      const seen = new Set<string>();
      for (const start of [START, START + 3_600_000])
        for (const of of places)
          for (const tariff of prices)
            for (const before of [undefined, ...prices]) {
              const found = oneForAll(site(of), start, [{ name: '', tariff, before }]);
              expect(found).toEqual(stopPrices(stop, CAR, 'EUR')(site(of), start, [{ name: '', tariff, before }]));
              seen.add(JSON.stringify([found.guest?.total, found.guest?.before, found.why]));
            }
      expect(seen.size).toBeGreaterThan(60);
    }
  });
  it('what of it costs a kWh in the battery: of AC comes less there', () => {
    expect(perBatteryKWh(at(guest({ perKWh: '0.57' })))).toBeCloseTo(0.6, 9);
    expect(perBatteryKWh(at(guest({ perKWh: '0.54' }), { dc: 0, ac: 22 }))).toBeCloseTo(0.6, 9);
    expect(perBatteryKWh(at([]))).toBeNull();
  });
  it('the cheapest of those near, and how much more that is', () => {
    const name = (id: string) => id.toUpperCase();
    const money = (n: number) => n.toFixed(2);
    const [a, b, none] = [at(guest({ perKWh: '0.50' }), { id: 'a' }), at(guest({ perKWh: '0.60' }), { id: 'b' }), at([], { id: 'c' })];
    const near = (of: (typeof a)[]) => nearSentence([a, b, none], of, '30 km of X', name, money);
    expect(near([none, b])).toBe('Within 30 km of X it costs least at B: 24.00, 4.00 more than at A.');
    expect(near([b, a])).toBe('Within 30 km of X it costs least at A: 20.00, the cheapest of all.');
    expect(near([none])).toBe('Within 30 km of X no site has a price on file.');
    expect(near([])).toBe('Within 30 km of X no site has a price on file.');
  });
  it('as a table for a spreadsheet, formulas told to be text', () => {
    const csv = sameStopCsv(
      [
        { ...at(guest({ perKWh: '0.5' })), name: '=1+1', network: 'N' },
        { ...at([]), name: 'B', network: 'N' },
      ],
      'EUR',
    ).split('\n');
    expect(csv[0]).toBe(
      'site,network,kWh,minutes,guest EUR,with plan EUR,plan,price from,before EUR,energy EUR,minutes EUR,start EUR,idle EUR,overstay EUR,rest EUR,why no price',
    );
    expect(csv.slice(1)).toEqual(["'=1+1,N,40.000,20.0,20.00,,,2025-01-01,,20.00,,,,,,", 'B,N,40.000,20.0,,,,,,,,,,,,no price on file']);
  });
});

describe('a plan by months', () => {
  const [guests, member] = [price({ perKWh: '0.49' }), price({ perKWh: '0.39' })];
  const visit = (month: string, kWh: number): PlanVisit => ({
    month,
    guest: guests,
    member,
    attempts: [{ n: 1, kWh: String(kWh), timed: true, session: sessionOf(`${month}-05T10:00:00Z`, [{ min: 30, kwh: kWh }]) }],
  });
  const months = planMonths(
    [visit('2025-06', 60), visit('2025-06', 40), visit('2025-07', 30), visit('2024-01', 500)],
    ['2025-05', '2025-06', '2025-07'],
    { monthlyFee: 4.99, currency: 'EUR' },
    (m) => m >= '2025-06',
  );
  it('to the smallest coin of its currency', () => {
    const of = (currency: string, monthlyFee: number) => planMonths([visit('2025-06', 10.01)], ['2025-06'], { monthlyFee, currency }, () => true)[0];
    expect(of('KWD', 2.9974)).toMatchObject({ guest: 4.9, plan: 6.897, saved: -1.997 });
    expect(of('JPY', 3)).toMatchObject({ guest: 5, plan: 7, saved: -2 });
  });
  it('each with its fee, to the cent', () => {
    expect(months).toEqual([
      { month: '2025-05', visits: 0, kWh: 0, guest: 0, plan: 4.99, saved: -4.99, held: false },
      { month: '2025-06', visits: 2, kWh: 100, guest: 49, plan: 43.99, saved: 5.01, held: true },
      { month: '2025-07', visits: 1, kWh: 30, guest: 14.7, plan: 16.69, saved: -1.99, held: true },
    ]);
  });
  it('in one sentence', () => {
    const money = (n: number) => n.toFixed(2);
    expect(planSentence(months, paysFrom(guests, member, 4.99), money)).toBe(
      'Pays from 50 kWh a month. In 1 of 3 months it would have paid: 1.97 more spent over all of them. In Jul 2025 it did not, by 1.99.',
    );
    expect(planSentence(months.slice(1, 2), null, money)).toBe(
      'In 1 of 1 months it would have paid: 5.01 saved over all of them. In Jun 2025 it did, by 5.01.',
    );
    expect(planSentence(months.slice(0, 1), null, money)).toBe('No visit of these months was where it holds.');
    const even = { month: '2025-08', visits: 1, kWh: 50, guest: 24.49, plan: 24.49, saved: 0, held: false };
    expect(planSentence([even], null, money)).toBe('In 0 of 1 months it would have paid: 0.00 saved over all of them.');
    expect(planSentence([{ ...even, held: true }], null, money)).toContain('In Aug 2025 it made no difference.');
    // A month without visits is one of those looked at, where another has some.
    expect(planSentence(months.slice(0, 2), null, money)).toContain('In 1 of 2 months it would have paid');
  });
  it('pays from so many kWh where both prices are so much per kWh, and that is all', () => {
    expect(paysFrom({ ...guests, tariff: null, extra: null, perKWh: '0.49' }, member, 4.99)).toBe('50');
    expect(paysFrom(price({ perKWh: '0.49', windows: [{ from: '22:00', to: '06:00', days: 'all', perKWh: '0.3' }] }), member, 4.99)).toBeNull();
    expect(paysFrom(member, guests, 4.99)).toBeNull();
    // Whatever else is asked for makes it no matter of kWh alone, on either side.
    for (const more of [{ perMin: '0.1' }, { taxOnTop: '22' }, { byPower: [{ fromKW: '0', perMin: '0.2' }] }]) {
      expect(paysFrom(price({ perKWh: '0.49', ...more }), member, 4.99)).toBeNull();
      expect(paysFrom(guests, price({ perKWh: '0.39', ...more }), 4.99)).toBeNull();
    }
    expect(paysFrom(guests, price({ perMin: '0.1' }), 4.99)).toBeNull();
    expect(paysFrom(price({ startFee: '5' }), member, 4.99)).toBeNull();
    // Without a fee it pays from the first on; with the same price never.
    expect([paysFrom(guests, member, 0), paysFrom(guests, guests, 4.99)]).toEqual([null, null]);
  });
  it('twelve months up to one', () =>
    expect([twelveMonths('2025-10')[0], twelveMonths('2025-10')[11], twelveMonths('2025-10').length]).toEqual(['2024-11', '2025-10', 12]));
  it('leaves out what cannot be priced both ways', () => {
    const v = visit('2025-06', 10);
    expect(pricedBothWays(v)).toBe(true);
    expect(pricedBothWays({ ...v, member: price({ perMin: '1' }), attempts: v.attempts.map((a) => ({ ...a, timed: false })) })).toBe(false);
  });
});
