import { recordItem } from '../records/record-schema';
import { deriveVisit } from '../visit/derive';
import { CARD, IN, idOf, KW, SITE, STALL_A, STALL_B, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { cdrsIn } from './ocpi-cdrs';
import { locationsIn } from './ocpi-locations';
import { cdrsOut, countryOf, locationsOut, type SiteOut, sessionsOut } from './ocpi-out';
import { readJson } from './strict-json';

const json = (of: unknown) => {
  const read = readJson(new TextEncoder().encode(JSON.stringify(of)));
  if (!read.ok) throw new Error(read.code);
  return read.value;
};
const site = (more: object = {}): SiteOut => ({
  id: SITE,
  archived: false,
  network: 'Saltmarsh Rapid',
  fields: recordItem('site', SITE, { networkId: idOf(90), name: 'Vrba Crossing', zone: 'Europe/Ljubljana', latitude: 46.377, longitude: 14.092, ...more })
    .fields,
  stalls: [
    {
      id: STALL_A,
      archived: false,
      fields: recordItem('stall', STALL_A, {
        siteId: SITE,
        name: '4',
        outlets: [{ connector: 'CCS2', ratedKW: 150, maxA: 500, maxV: 920 }],
        evseUids: ['SI*SMR*E4'],
      }).fields,
    },
    {
      id: STALL_B,
      archived: false,
      fields: recordItem('stall', STALL_B, {
        siteId: SITE,
        name: 'The one by the hedge',
        outlets: [
          { connector: 'MCS', ratedKW: 1000 },
          { connector: 'Type 2', ratedKW: 22, phases: 3 },
        ],
      }).fields,
    },
  ],
});
const FAILED: Step[] = [
  IN,
  [10, 'stall_chosen', { stallId: STALL_A }],
  [20, 'plugged'],
  [30, 'means_shown', CARD],
  [60, 'fault', { code: 'start_error', side: 'network' }],
  [70, 'unplugged'],
];
const CHARGED: Step[] = [
  ...FAILED,
  [80, 'plugged'],
  [90, 'means_shown', CARD],
  [120, 'power_seen', KW],
  [1920, 'reading', { screen: 'stall', kWh: '25.125', kW: 48 }],
  [1920, 'stop_asked', { by: 'button' }],
  [1925, 'power_gone', { why: 'asked' }],
  [1950, 'unplugged'],
  [1990, 'pulled_out', { reason: 'enough' }],
];
const BILL: Step = [2000, 'bill', { sessions: [], amount: '12.20', tax: '2.20', currency: 'EUR', state: 'charged' }];
const visit = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem);
const siteOf =
  (of: SiteOut | undefined = site()) =>
  () =>
    of;

describe('sites as Locations', () => {
  it('break nothing of the standard and come in as they were', () => {
    const { data, leftOut } = locationsOut([site()], Date.UTC(2025, 9, 15));
    const back = locationsIn(json({ data }));
    expect(back.breaches).toEqual([]);
    expect(back.sites).toMatchObject([
      {
        id: `SI*MLE*${SITE}`,
        name: 'Vrba Crossing',
        network: 'Saltmarsh Rapid',
        zone: 'Europe/Ljubljana',
        latitude: 46.377,
        longitude: 14.092,
        stalls: [
          { name: '4', evseUids: ['SI*SMR*E4'], outlets: [{ connector: 'CCS2', ratedKW: 150, maxA: 500, maxV: 920, cable: 'tethered' }] },
          { outlets: [{ connector: 'Type 2', ratedKW: 22, phases: 3, cable: 'own cable' }] },
        ],
      },
    ]);
    // A plug that the standard does not name is left out, and said.
    expect(leftOut).toEqual([{ id: STALL_B, why: 'connector' }]);
  });
  it('without a position cannot be said; what nobody noted is named', () => {
    expect(locationsOut([site({ latitude: null, longitude: null })], 0)).toEqual({ data: [], leftOut: [{ id: SITE, why: 'no_position' }] });
    expect(locationsOut([{ ...site(), archived: true }], 0)).toEqual({ data: [], leftOut: [{ id: SITE, why: 'put_away' }] });
    const [a, b] = site().stalls as [SiteOut['stalls'][number], SiteOut['stalls'][number]];
    const one = locationsOut([{ ...site(), stalls: [{ ...a, archived: true }, b] }], 0);
    expect([(one.data[0] as { evses: object[] }).evses.length, one.leftOut]).toEqual([
      1,
      [
        { id: STALL_A, why: 'put_away' },
        { id: STALL_B, why: 'connector' },
      ],
    ]);
    expect(locationsOut([site()], 0).data[0]).toMatchObject({ city: 'not known', address: 'not known', x_not_known: ['city', 'postal_code', 'address'] });
    expect(locationsOut([site({ entrance: 'Service road 4' })], 0).data[0]).toMatchObject({ address: 'Service road 4', x_not_known: ['city', 'postal_code'] });
  });
  it('what the Location that it came from says beyond it goes out as it came, and what is here goes before it', () => {
    const hours = { twentyfourseven: false, regular_hours: [{ weekday: 1, period_begin: '07:00', period_end: '19:00' }] };
    const file = {
      country_code: 'SI',
      party_id: 'SMR',
      id: 'A',
      publish: true,
      name: 'Its name there',
      city: 'Vrba',
      address: 'By the crossing 1',
      state: 'Upper',
      country: 'AUT',
      x_parking: { bays: 40 },
      images: [{ url: 'https://example.org/a.jpg' }],
      opening_times: hours,
      time_zone: 'UTC',
      last_updated: '2020-01-01T00:00:00Z',
      operator: { name: 'SALTMARSH rapid', website: 'https://example.org' },
      evses: [
        { uid: 'SI*SMR*E4', status: 'CHARGING', floor_level: '-1', x_lamp: true, connectors: [{ id: '7', max_voltage: 1, tariff_ids: ['T'] }] },
        { uid: 'gone', floor_level: '3' },
      ],
    };
    const of = (openingHours: string | null, format: 'OCPI' | 'GeoJSON' = 'OCPI') =>
      locationsOut([site({ openingHours, fromFile: { format, day: '2025-10-01', document: JSON.stringify(file) } })], 0).data[0] as Record<string, unknown>;
    expect(of('Mon 07:00–19:00')).toMatchObject({
      party_id: 'MLE',
      id: SITE,
      publish: false,
      name: 'Vrba Crossing',
      country: 'SVN',
      time_zone: 'Europe/Ljubljana',
      last_updated: '1970-01-01T00:00:00.000Z',
      city: 'Vrba',
      address: 'By the crossing 1',
      state: 'Upper',
      x_parking: { bays: 40 },
      images: file.images,
      opening_times: hours,
      x_not_known: ['postal_code'],
    });
    const evses = of(null).evses as Record<string, unknown>[];
    expect(of(null).operator).toEqual({ name: 'Saltmarsh Rapid', website: 'https://example.org' });
    expect(evses).toHaveLength(2);
    expect(evses[0]).toMatchObject({
      uid: 'SI*SMR*E4',
      status: 'UNKNOWN',
      floor_level: '-1',
      x_lamp: true,
      connectors: [{ id: '1', max_voltage: 920, tariff_ids: ['T'] }],
    });
    expect(evses[1]).not.toHaveProperty('floor_level');
    // Hours that somebody noted otherwise go before those of the file, which then do not go out.
    expect(JSON.parse(JSON.stringify(of('by day')))).not.toHaveProperty('opening_times');
    expect(of(null, 'GeoJSON')).toMatchObject({ city: 'not known' });
    expect(locationsIn(json({ data: [of('Mon 07:00–19:00')] })).breaches).toEqual([]);
    expect(
      JSON.parse(
        JSON.stringify(locationsOut([{ ...site({ fromFile: { format: 'OCPI', day: '2025-10-01', document: JSON.stringify(file) } }), stalls: [] }], 0).data[0]),
      ),
    ).not.toHaveProperty('evses');
  });
  it('a put-away stall is not there; one that is not open yet is planned', () => {
    const of = site();
    const [a, b] = of.stalls as [SiteOut['stalls'][number], SiteOut['stalls'][number]];
    const state = { is: 'not yet open' as const, kW: null, seenOn: '2025-10-01', by: 'Ines' };
    const { data } = locationsOut(
      [
        {
          ...of,
          stalls: [
            { ...a, fields: { ...a.fields, state } },
            { ...b, archived: true },
          ],
        },
      ],
      0,
    );
    expect((data[0] as { evses: { status: string }[] }).evses.map((e) => e.status)).toEqual(['PLANNED']);
  });
  // ISO 3166-1, from memory.
  it.each([
    ['Europe/Ljubljana', 'SI', 'SVN'],
    ['Europe/London', 'GB', 'GBR'],
    ['America/New_York', 'US', 'USA'],
    ['UTC', 'ZZ', 'ZZZ'],
  ])('%s is in %s', (zone, two, three) => {
    expect(countryOf(zone)).toEqual({ two, three });
  });
});

describe('charges as CDRs and Sessions', () => {
  it('a CDR breaks nothing of the standard and tells what the ledger tells', () => {
    const v = visit(...CHARGED, BILL);
    const { data, leftOut } = cdrsOut([v], siteOf());
    const back = cdrsIn(json(data));
    expect(back.breaches).toEqual([]);
    expect(back.bills).toMatchObject([
      { id: `SI*MLE*${v.attempts[1]?.opened.id}`, start: v.attempts[1]?.proof?.t, site: 'Vrba Crossing', evse: 'SI*SMR*E4', currency: 'EUR', taxIn: true },
    ]);
    const [bill] = back.bills;
    expect([Number(bill?.kWh), Number(bill?.amount), bill && (bill.end - bill.start) / 1000]).toEqual([25.125, 12.2, 1805]);
    expect(data[0]).toMatchObject({ total_cost: { excl_vat: 10, incl_vat: 12.2 }, total_time: 0.501389, x_attempt: 2, x_visit: VISIT });
    expect((data[0] as { x_not_known: string[] }).x_not_known).not.toContain('tax');
    // What failed cannot be said, and is told beside.
    expect(leftOut).toEqual([{ id: VISIT, attempt: 1, why: 'no_power' }]);
  });
  it.each([
    ['no bill', [...CHARGED], 'no_cost'],
    ['bills in two currencies', [...CHARGED, BILL, [2001, 'bill', { sessions: [], amount: '1.00', currency: 'GBP', state: 'charged' }]], 'currencies'],
    ['more taken back than paid', [...CHARGED, BILL, [2001, 'bill', { sessions: [], amount: '13.00', currency: 'EUR', state: 'refunded' }]], 'no_cost'],
    ['a charge whose energy nobody read', [...CHARGED.filter(([, kind]) => kind !== 'reading'), BILL], 'no_energy'],
    ['a charge that goes on', [...CHARGED.slice(0, 10).filter(([, kind]) => kind !== 'stop_asked')], 'no_energy'],
  ] as [string, Step[], string][])('%s: no CDR, and why', (_what, steps, why) => {
    const { data, leftOut } = cdrsOut([visit(...steps)], siteOf());
    expect(data).toEqual([]);
    expect(leftOut.at(-1)).toMatchObject({ attempt: 2, why });
  });
  it('a refund is taken off, tax that nobody noted is said to be not known', () => {
    const refund: Step = [2001, 'bill', { sessions: [], amount: '2.20', currency: 'EUR', state: 'refunded' }];
    const { data } = cdrsOut([visit(...CHARGED, BILL, refund)], siteOf());
    expect(data[0]).toMatchObject({ total_cost: { excl_vat: 10, incl_vat: 10 }, x_not_known: expect.arrayContaining(['tax']) });
  });
  it('at a place or plug that cannot be said there is none', () => {
    const v = visit(...CHARGED, BILL);
    const whys = (of: SiteOut | undefined) => cdrsOut([v], () => of).leftOut.map((l) => l.why);
    expect(whys(undefined)).toEqual(['no_power', 'no_stall']);
    expect(whys(site({ latitude: null, longitude: null }))).toEqual(['no_power', 'no_position']);
    const of = site();
    const [a] = of.stalls as [SiteOut['stalls'][number]];
    expect(whys({ ...of, stalls: [{ ...a, fields: { ...a.fields, outlets: [{ ...a.fields.outlets[0], connector: 'NACS' }] as never } }] })).toEqual([
      'no_power',
      'connector',
    ]);
  });
  it('a Session needs no bill; one withdrawn is none', () => {
    const v = visit(...CHARGED);
    const { data } = sessionsOut([v], siteOf(), 'EUR');
    expect(data).toMatchObject([{ kwh: 25.125, status: 'COMPLETED', location_id: SITE, evse_uid: 'SI*SMR*E4', connector_id: '1', currency: 'EUR' }]);
    expect(data[0]).not.toHaveProperty('total_cost');
    expect(sessionsOut([visit(...CHARGED, BILL)], siteOf(), 'EUR').data[0]).toMatchObject({ total_cost: { incl_vat: 12.2 } });
    const gone = visit(...CHARGED, [3000, 'withdrawal', { target: VISIT }]);
    expect(sessionsOut([gone], siteOf(), 'EUR')).toEqual({ data: [], leftOut: [] });
  });
  it('a charge of which a receipt alone tells is named, since nothing says when it began', () => {
    const bill = { sessions: [], amount: '15.70', currency: 'EUR', kWh: '31.4', state: 'charged' };
    const receipt = deriveVisit(VISIT, story([0, 'pulled_in', { siteId: SITE }], [20, 'pulled_out', { reason: 'enough' }], [30, 'bill', bill]), payloadProblem);
    for (const out of [cdrsOut([receipt], siteOf()), sessionsOut([receipt], siteOf(), 'EUR')])
      expect(out).toEqual({ data: [], leftOut: [{ id: VISIT, why: 'no_attempt' }] });
  });
});
