import type { MileRecord } from '../records/record-schema';
import { RECORDS } from '../records/record-schema';
import { idOf, SITE } from '../visit/fixtures/story';
import { NO_PRICE } from './plain-price';
import { draftFrom, draftOf, GUESTS, itemOfDraft, type OtherPrice, objectOfDraft, otherPrices, type PriceDraft, saidBy } from './price-draft';

const [NETWORK, PLAN, PROVIDER, OTHER_SITE, ID] = [idOf(40), idOf(50), idOf(51), idOf(60), idOf(61)];
const of = { siteId: SITE, currency: 'EUR', today: '2026-06-01' };
const around = { id: ID, record: null, site: { id: SITE, networkId: NETWORK }, own: { plans: [PLAN], providers: [PROVIDER] }, today: of.today };
const kept = (more: object): MileRecord<'tariff'> => ({
  type: 'tariff',
  id: ID,
  rev: 3,
  archived: false,
  fields: RECORDS.tariff.parse({ networkId: NETWORK, siteId: SITE, currency: 'EUR', perKWh: '0.5', validFrom: '2026-01-01', ...more }),
});
const typed = (plain: Partial<PriceDraft['plain']>, more: Partial<PriceDraft> = {}): PriceDraft => ({
  ...draftOf(null, of),
  plain: { ...NO_PRICE, ...plain },
  ...more,
});
const item = (d: PriceDraft, more: object = {}, archived = false) => {
  const found = itemOfDraft(d, { ...around, ...more }, archived);
  if ('odd' in found) throw new Error(JSON.stringify(found.odd));
  return found.item;
};
const odd = (d: PriceDraft) => {
  const found = itemOfDraft(d, around, false);
  return 'odd' in found ? found.odd : null;
};

describe('a price that is typed', () => {
  it('begins as the guests’ of the site from today, and says nothing yet', () => {
    const begun = draftOf(null, of);
    expect(begun).toEqual({
      plain: NO_PRICE,
      raw: null,
      forWhom: GUESTS,
      where: 'site',
      siteIds: [SITE],
      currency: 'EUR',
      from: '2026-06-01',
      until: '',
      note: '',
    });
    expect(objectOfDraft(begun, ID, of.today)).toBeNull();
    expect(odd(begun)).toEqual({ perKWh: 'What does it cost? Free of charge is 0' });
  });
  it('is kept with the object behind it and its one line', () => {
    expect(item(typed({ perKWh: '0.5', startFee: '1', idlePerMin: '0.2', idleAfterMin: '10', taxOnTop: '20' }))).toMatchObject({
      type: 'tariff',
      id: ID,
      baseRev: 0,
      archived: false,
      fields: {
        networkId: NETWORK,
        siteId: SITE,
        moreSiteIds: [],
        planId: null,
        providerId: null,
        perKWh: '0.6',
        startFee: '1.2',
        validFrom: '2026-06-01',
        validUntil: null,
        note: null,
      },
    });
    expect(item(typed({ perKWh: '0' })).fields).toMatchObject({ perKWh: '0', tariff: { id: ID, last_updated: '2026-06-01T00:00:00Z' }, extra: null });
    expect(objectOfDraft(typed({ perKWh: '1' }, { from: '' }), ID, '2026-07-01')?.tariff.last_updated).toBe('2026-07-01T00:00:00Z');
  });
  it('is for a plan or a provider, of a network, of some sites, until a day', () => {
    expect(item(typed({ perKWh: '1' }, { forWhom: PLAN })).fields).toMatchObject({ planId: PLAN, providerId: null });
    expect(item(typed({ perKWh: '1' }, { forWhom: PROVIDER })).fields).toMatchObject({ planId: null, providerId: PROVIDER });
    expect(item(typed({ perKWh: '1' }, { where: 'network' })).fields).toMatchObject({ siteId: null, moreSiteIds: [] });
    expect(item(typed({ perKWh: '1' }, { where: 'sites', siteIds: [OTHER_SITE, SITE] })).fields).toMatchObject({ siteId: OTHER_SITE, moreSiteIds: [SITE] });
    expect(item(typed({ perKWh: '1' }, { until: '2026-12-31', note: 'sign' })).fields).toMatchObject({ validUntil: '2026-12-31', note: 'sign' });
  });
  it('says by its field what is wrong, and all of it', () => {
    expect(odd(typed({ perKWh: 'x', startFee: '-1' }))).toMatchObject({ perKWh: expect.any(String), startFee: expect.any(String) });
    expect(odd(typed({ perKWh: '1', overstayFee: '5' }))).toEqual({ overstayAfterMin: 'Both, or neither' });
    expect(odd(typed({ perKWh: '1', overstayAfterMin: '60' }))).toEqual({ overstayAfterMin: 'Both, or neither' });
    expect(odd(typed({ perKWh: '1', idleAfterMin: '10' }))).toEqual({ idlePerMin: 'How much a minute?' });
    expect(odd(typed({ perKWh: '1', windows: [{ from: '22:00', to: '06:00', days: 'all', perKWh: '' }] }))).toHaveProperty(['windows.0.perKWh']);
    expect(odd(typed({ perKWh: '1' }, { where: 'sites', siteIds: [] }))).toEqual({ sites: 'At least one site' });
    expect(odd(typed({ perKWh: '1' }, { currency: 'EURO', from: '2026-02-31' }))).toMatchObject({
      currency: expect.any(String),
      validFrom: expect.any(String),
    });
  });
});

describe('a price on file', () => {
  it('is mended with all that it says', () => {
    const record = kept({ planId: PLAN, startFee: '1', validUntil: '2026-12-31', note: 'sign' });
    const d = draftOf(record, of);
    expect(d).toMatchObject({
      plain: { ...NO_PRICE, perKWh: '0.5', startFee: '1' },
      forWhom: PLAN,
      where: 'site',
      from: '2026-01-01',
      until: '2026-12-31',
      note: 'sign',
    });
    expect(item(d, { record }, true)).toMatchObject({ id: ID, baseRev: 3, archived: true, fields: { planId: PLAN, perKWh: '0.5', startFee: '1' } });
  });
  it('of a network, or of other sites, stays where it is', () => {
    expect(draftOf(kept({ siteId: null }), of)).toMatchObject({ where: 'network', siteIds: [SITE] });
    expect(draftOf(kept({ moreSiteIds: [OTHER_SITE] }), of)).toMatchObject({ where: 'sites', siteIds: [SITE, OTHER_SITE] });
    const elsewhere = draftOf(kept({ siteId: OTHER_SITE }), of);
    expect(elsewhere).toMatchObject({ where: 'sites', siteIds: [OTHER_SITE] });
    expect(item(elsewhere).fields.siteId).toBe(OTHER_SITE);
  });
  it('as it is now begins with what it was, from today', () => {
    const record = kept({ providerId: PROVIDER, startFee: '0', validUntil: '2026-05-31', note: 'sign' });
    expect(draftFrom(record, of, idOf(64))).toMatchObject({
      plain: { perKWh: '0.5', startFee: '' },
      forWhom: PROVIDER,
      from: '2026-06-01',
      until: '',
      note: '',
    });
  });
  it('that is an object begins anew under its own id, without the days on which it held', () => {
    const object = {
      ...(objectOfDraft(typed({ perKWh: '0.4' }), ID, of.today)?.tariff as object),
      min_price: { excl_vat: 1 },
      start_date_time: '2026-01-01T00:00:00Z',
      end_date_time: '2026-05-31T00:00:00Z',
    };
    const record = kept({ tariff: object, extra: { tax_percent: 5 } });
    const { start_date_time: _, end_date_time: __, ...undated } = object as Record<string, unknown>;
    expect(draftFrom(record, of, idOf(64)).raw).toEqual({ tariff: { ...undated, id: idOf(64) }, extra: { tax_percent: 5 } });
    expect(draftOf(record, of).raw?.tariff).toEqual(object);
    expect(saidBy({ ...record.fields, name: 'x' }, idOf(65)).raw).toEqual({ tariff: { ...undated, id: idOf(65) }, extra: { tax_percent: 5 } });
    expect(saidBy({ tariff: object as never, extra: null }, idOf(65)).raw?.tariff).toEqual({ ...object, id: idOf(65) });
  });
  it('that the plain choices cannot say is taken as an object', () => {
    const object = {
      country_code: 'ZZ',
      party_id: 'OWN',
      id: 't',
      currency: 'CHF',
      last_updated: '2026-01-01T00:00:00Z',
      elements: [{ price_components: [{ type: 'ENERGY', price: 0.4, vat: 8, step_size: 500 }], restrictions: { min_power: 20 } }],
    };
    const record = kept({ currency: 'CHF', tariff: object, extra: null });
    const d = draftOf(record, of);
    expect(d).toMatchObject({ plain: NO_PRICE, raw: { tariff: object, extra: null } });
    expect(objectOfDraft(d, ID, of.today)).toBe(d.raw);
    expect(item({ ...d, currency: 'EUR' }, { record }).fields).toMatchObject({ currency: 'CHF', perKWh: '0.432', tariff: object });
    const plain = item(typed({ perKWh: '0.5', perMin: '0.1' }));
    expect(draftOf(kept(plain.fields), of)).toMatchObject({ raw: null, plain: { perKWh: '0.5', perMin: '0.1' } });
  });
});

describe('a price of another place', () => {
  const records = [
    kept({ validFrom: '2026-01-01' }),
    { ...kept({ validFrom: '2026-02-01', siteId: null, startFee: '2' }), id: idOf(62) },
    { ...kept({ validFrom: '2026-03-01' }), archived: true },
  ];
  const others = otherPrices(records, (network, site) => `${network === NETWORK} ${site === SITE}`);
  it('is listed by where and since when, the newest first, what was put away not', () => {
    expect(others.map((o) => o.name)).toEqual(['true false, 2026-02-01', 'true true, 2026-01-01']);
    expect(otherPrices(Array(60).fill(records[0]), () => '')).toHaveLength(40);
  });
  it('takes the place of what was typed, under the id of the one that is typed', () => {
    expect(saidBy(others[0] as OtherPrice, ID)).toEqual({ currency: 'EUR', plain: { ...NO_PRICE, perKWh: '0.5', startFee: '2' }, raw: null });
    const tariff = objectOfDraft(typed({ perKWh: '0.4' }, { currency: 'CHF' }), idOf(63), of.today)?.tariff as never;
    expect(saidBy({ tariff, extra: null }, ID)).toMatchObject({ currency: 'CHF', plain: { perKWh: '0.4' }, raw: null });
    const odd = { ...(tariff as object), min_price: { excl_vat: 1 } } as never;
    expect(saidBy({ tariff: odd, extra: null }, ID)).toMatchObject({
      plain: NO_PRICE,
      raw: { tariff: { id: ID, currency: 'CHF', min_price: { excl_vat: 1 } }, extra: null },
    });
  });
});
