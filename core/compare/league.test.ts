import price from '../evidence/fixtures/price.json';
import { league, startsOf, waiting } from './league';
import type { AttemptRow, VisitRow } from './visit-row';

const attempt = (s: number | null, more: Partial<AttemptRow> = {}): AttemptRow => ({
  outcome: 'power',
  endMark: 'kW',
  late: false,
  handshake: s,
  ...more,
});
const failed: AttemptRow = { outcome: 'failed', endMark: null, late: false, handshake: null };
const visit = (more: Partial<VisitRow> = {}): VisitRow => ({
  networkId: 'n',
  siteId: 's',
  stallId: null,
  workedAt: [],
  driverId: null,
  at: 0,
  month: '2025-10',
  attemptCount: more.attempts?.length ?? 1,
  firstTry: 'yes',
  firstSide: null,
  leftReason: 'enough',
  leftOut: false,
  attempts: [attempt(20)],
  lost_s: 0,
  deliveredKWh: null,
  paid: null,
  currency: null,
  ...more,
});
const times = (n: number, f: (i: number) => VisitRow) => Array.from({ length: n }, (_, i) => f(i));
const row = (visits: VisitRow[]) => league(visits, { time: 'handshake', mark: 'kW', currency: 'EUR' })[0]!;

describe('a line of the league', () => {
  it('counts the first try over visits with an answer, and what is left out beside', () => {
    const r = row([
      visit(),
      visit({ firstTry: 'no', attempts: [failed] }),
      visit({ firstTry: 'left_out', attempts: [{ ...failed, outcome: 'open' }] }),
      visit({ firstTry: 'left_out', attempts: [] }),
    ]);
    expect(r).toMatchObject({ visits: 3, allVisits: 4, firstTry: { yes: 1, no: 1, leftOut: 1 } });
    expect(r.firstTry.interval?.[0]).toBeCloseTo(0.0945, 3);
  });
  it('says from how many sites, and the share of the commonest', () => {
    expect(row([visit({ siteId: 'a' }), visit({ siteId: 'a' }), visit({ siteId: 'b' })])).toMatchObject({ sites: 2, commonestSite: 2 / 3 });
  });
  it('averages the lost time over the visits where it is known', () => {
    expect(row([visit({ lost_s: 100 }), visit({ lost_s: 0 }), visit({ lost_s: null })]).lost).toEqual({ known: true, value: { perVisit_s: 50, visits: 2 } });
  });
  // Fixture: R 4.2.2, total cost over total kWh, which is not the mean of the ratios.
  it.each(price.cases.map((c) => [c.label ?? 'case', c] as const))('all-in price, R: %s', (_name, c) => {
    const r = row(c.cost.map((paid, i) => visit({ paid: String(paid), deliveredKWh: String(c.kwh[i]), currency: 'EUR' })));
    expect(r.allIn.known && Number(r.allIn.value.perKWh)).toBeCloseTo(c.weightedMean, 10);
  });
  it('leaves other currencies and half-known visits out of the price, zero kWh in', () => {
    const r = row([
      visit({ paid: '10', deliveredKWh: '20', currency: 'EUR' }),
      visit({ paid: '2', deliveredKWh: '0', currency: 'EUR' }),
      visit({ paid: '99', deliveredKWh: '1', currency: 'CHF' }),
      visit({ paid: '99', deliveredKWh: null, currency: 'EUR' }),
    ]);
    expect(r.allIn).toEqual({ known: true, value: { perKWh: '0.6', currency: 'EUR', visits: 2 } });
  });
  it('lines stand in the order of the interval’s lower end: one lucky visit does not lead', () => {
    const rows = league([visit({ networkId: 'lucky' }), ...times(20, (i) => visit({ networkId: 'steady', firstTry: i === 0 ? 'no' : 'yes' }))], {
      time: 'handshake',
      mark: 'kW',
      currency: 'EUR',
    });
    expect(rows.map((r) => r.networkId)).toEqual(['steady', 'lucky']);
  });
});

describe('waiting for power', () => {
  it('counts what never got power as never', () => {
    expect(waiting([attempt(10), attempt(20), attempt(30), failed], { time: 'handshake', mark: 'kW' })).toMatchObject({
      timed: 3,
      never: 1,
      median: { known: true, value: 25 },
    });
  });
  it('says so when fewer than half started', () => {
    expect(waiting([attempt(10), failed, failed], { time: 'handshake', mark: 'kW' }).median).toEqual({ known: false, why: 'fewer than half started' });
  });
  it('keeps end marks apart and late looks out', () => {
    expect(
      waiting([attempt(10), attempt(90, { endMark: 'kWh' }), attempt(400, { late: true }), attempt(null), { ...failed, outcome: 'open' }], {
        time: 'handshake',
        mark: 'kW',
      }),
    ).toMatchObject({ timed: 1, never: 0, leftOut: 4, median: { value: 10 } });
  });
  it('the middle half may have no upper end', () => {
    expect(waiting([attempt(10), attempt(20), attempt(30), failed, failed], { time: 'handshake', mark: 'kW' }).quarters).toEqual([20, null]);
  });
});

it('starts are the visits with an answer, whatever side failed; what somebody left out is none', () => {
  const where = { networkId: 'n', siteId: 'x', stallId: 'y', workedAt: ['y'], driverId: 'z', at: 7, month: '2025-10' };
  expect(
    startsOf([
      visit(where),
      visit({ ...where, firstTry: 'no', firstSide: 'car' }),
      visit({ ...where, firstTry: 'left_out' }),
      visit({ ...where, leftOut: true }),
    ]),
  ).toEqual([
    { ...where, yes: true },
    { ...where, yes: false },
  ]);
});
