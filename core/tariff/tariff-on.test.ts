import type { MileRecord } from '../records/record-schema';
import { RECORDS } from '../records/record-schema';
import { billDifference } from './bill-difference';
import { GUEST, type KeptTariff, type Offer, offersOn, payerName, pricesByPlace, providersOf, takenOf, tariffOn } from './tariff-on';

const idOf = (name: string) =>
  `01900000-0000-7000-8000-${[...name]
    .map((c) => c.charCodeAt(0).toString(16))
    .join('')
    .padStart(12, '0')}`;
const tariff = ({ id = 't', networkId = 'n', siteId = null, ...more }: Partial<KeptTariff> = {}): KeptTariff => ({
  id: idOf(id),
  ...RECORDS.tariff.parse({
    networkId: idOf(networkId),
    siteId: siteId && idOf(siteId),
    currency: 'EUR',
    perKWh: '0.55',
    validFrom: '2025-01-01',
    ...more,
  }),
});

describe('the price of a day', () => {
  const kept = ({ id, ...fields }: KeptTariff, archived = false): MileRecord<'tariff'> => ({ type: 'tariff', id, rev: 1, archived, fields });
  const list = [
    kept(tariff({ id: 'old', validFrom: '2024-01-01' })),
    kept(tariff({ id: 'new', validFrom: '2025-03-01' })),
    kept(tariff({ id: 'other', networkId: 'm', validFrom: '2025-04-01' })),
  ];
  const at = (records: typeof list, day: string, siteId: string | null = 's', networkId: string | null = 'n') => {
    const id = tariffOn(records, { siteId: siteId && idOf(siteId), networkId: networkId && idOf(networkId) }, day)?.id;
    return ['old', 'new', 'other', 'own', 'gone', 'ends', 'member'].find((name) => idOf(name) === id);
  };
  it('is the one that held', () => expect([at(list, '2025-02-28'), at(list, '2025-03-01')]).toEqual(['old', 'new']));
  it('is the newest of those that hold, of two of one day always the same, whatever their order', () => {
    const three = [...list, kept(tariff({ id: 'gone', validFrom: '2024-06-01' })), kept(tariff({ id: 'ends', validFrom: '2025-03-01' }))];
    const last = at(three, '2025-06-01');
    expect(['new', 'ends']).toContain(last);
    expect([at([...three].reverse(), '2025-06-01'), at(three, '2025-01-15'), at([...three].reverse(), '2025-01-15')]).toEqual([last, 'gone', 'gone']);
  });
  it('is none before the first or at an unknown network', () =>
    expect([at(list, '2023-12-31'), at(list, '2025-06-01', null, null)]).toEqual([undefined, undefined]));
  it('is the sites’ own from its day, and no other site’s', () => {
    const own = [...list, kept(tariff({ id: 'own', siteId: 's', moreSiteIds: [idOf('u')], validFrom: '2025-02-01' }))];
    expect([at(own, '2025-01-31'), at(own, '2025-02-01'), at(own, '2025-06-01', 'u'), at(own, '2025-06-01', 't')]).toEqual(['old', 'own', 'own', 'new']);
  });
  it('ends with its last day, and counts for its days also when it was put away', () => {
    const ends = [...list, kept(tariff({ id: 'ends', validFrom: '2025-03-05', validUntil: '2025-03-06' }))];
    expect([at(ends, '2025-03-06'), at(ends, '2025-03-07')]).toEqual(['ends', 'new']);
    expect(at([kept(tariff({ id: 'gone' }), true)], '2025-06-01')).toBe('gone');
  });
  it('is the same among the prices that a place could have', () => {
    const many = [...list, kept(tariff({ id: 'own', siteId: 's', moreSiteIds: [idOf('u')] })), kept(tariff({ id: 'gone', siteId: 't', networkId: 'm' }))];
    const of = pricesByPlace(many);
    for (const siteId of ['s', 't', 'u', 'x', null])
      for (const networkId of ['n', 'm', 'x', null]) {
        const place = { siteId: siteId && idOf(siteId), networkId: networkId && idOf(networkId) };
        expect(tariffOn(of(place), place, '2025-06-01')).toBe(tariffOn(many, place, '2025-06-01'));
        expect(of(place).length).toBeLessThan(many.length);
      }
  });
  it('is a guest’s, unless a plan is held that day', () => {
    const plan = (from: string, until: string | null): MileRecord<'plan'> => ({
      type: 'plan',
      id: idOf('p'),
      rev: 1,
      archived: false,
      fields: RECORDS.plan.parse({ name: 'Plan', networkId: idOf('n'), currency: 'EUR', from, until }),
    });
    const both = [
      ...list,
      kept(tariff({ id: 'member', planId: idOf('p'), validFrom: '2025-01-01' })),
      kept(tariff({ id: 'own', providerId: idOf('q'), validFrom: '2025-01-01' })),
    ];
    expect(at(both, '2025-06-01')).toBe('new');
    const offers = (day: string, plans: MileRecord<'plan'>[], providers: string[] = []) =>
      offersOn(both, plans, providers, { siteId: null, networkId: idOf('n') }, day).map((o) => o.tariff.id);
    expect(offers('2025-06-01', [plan('2025-06-01', '2025-06-30')])).toEqual([idOf('new'), idOf('member')]);
    expect(offers('2025-07-01', [plan('2025-06-01', '2025-06-30')])).toEqual([idOf('new')]);
    expect(offers('2025-05-31', [plan('2025-06-01', null)], [idOf('q'), idOf('q')])).toEqual([idOf('new'), idOf('own')]);
  });
});

describe('who pays', () => {
  const [plan, provider] = [
    { planId: idOf('p'), providerId: null },
    { planId: null, providerId: idOf('q') },
  ];
  const by = (...payers: Offer['payer'][]): Offer[] => payers.map((payer) => ({ payer, tariff: tariff() }));
  it('is held against the plan, else the provider, else the guest', () => {
    expect(takenOf(by(GUEST, provider, plan))?.payer).toBe(plan);
    expect(takenOf(by(GUEST, provider))?.payer).toBe(provider);
    expect(takenOf(by(GUEST))?.payer).toBe(GUEST);
    expect(takenOf([])).toBeUndefined();
  });
  it('is called by name, also when that is on no phone yet', () => {
    const named = { plans: [{ id: idOf('p'), fields: { name: 'Otter plan' } }], providers: [{ id: idOf('q'), fields: { name: 'Heron' } }] } as never;
    const none = { plans: [], providers: [] };
    expect([GUEST, plan, provider].map((p) => payerName(p, named))).toEqual([null, 'Otter plan', 'Heron']);
    expect([plan, provider].map((p) => payerName(p, none))).toEqual(['a plan', 'a provider']);
  });
  it('pays through the provider of the means', () => {
    const means = [
      ['a', 'q'],
      ['b', null],
      ['c', 'r'],
    ].map(([id, p]) => ({ id, fields: { providerId: p } })) as never;
    expect(providersOf(means, ['a', 'b', undefined])).toEqual(['q']);
  });
});

describe('the difference from what was charged', () => {
  const expected = { lines: [], total: '22.74', currency: 'EUR' };
  it('is signed', () =>
    expect([billDifference(expected, { amount: '23.20', currency: 'EUR' }), billDifference(expected, { amount: '22.00', currency: 'EUR' })]).toEqual([
      { known: true, value: '0.46' },
      { known: true, value: '-0.74' },
    ]));
  it('is unknown across currencies', () => expect(billDifference(expected, { amount: '22', currency: 'CHF' }).known).toBe(false));
});
