import { recordItem } from '../records/record-schema';
import { idOf, SITE } from '../visit/fixtures/story';
import { priceFromPost } from './post-price';

const NETWORK = idOf(40);
const place = { siteId: SITE, networkId: NETWORK };
const SAID = { currency: 'EUR', perKWh: '0.59', startFee: '' };
const price = (more: object = {}) => ({
  ...recordItem('tariff', idOf(60), { ...place, currency: 'EUR', perKWh: '0.49', startFee: '0.5', validFrom: '2026-06-01', note: 'sign', ...more } as never),
  rev: 3,
  archived: false,
});
const kept = (...records: ReturnType<typeof price>[]) => priceFromPost(records, place, SAID, '2026-06-01', idOf(61));

describe('what a post said as a price', () => {
  it('is that of the site for guests from the day on', () => {
    expect(kept()).toMatchObject({
      id: idOf(61),
      baseRev: 0,
      fields: { siteId: SITE, networkId: NETWORK, planId: null, perKWh: '0.59', startFee: '0', validFrom: '2026-06-01', validUntil: null },
    });
    expect(priceFromPost([], place, { ...SAID, startFee: '1.2' }, '2026-06-01', idOf(61))?.fields.startFee).toBe('1.2');
  });
  it('mends the one of the same day, and of no other', () => {
    expect(kept(price())).toMatchObject({ id: idOf(60), baseRev: 3, fields: { perKWh: '0.59', startFee: '0', note: 'sign' } });
    const others = [
      { validFrom: '2026-05-31' },
      { siteId: null },
      { siteId: idOf(8) },
      { moreSiteIds: [idOf(8)] },
      { planId: idOf(50) },
      { providerId: idOf(50) },
      {
        extra: { tax_percent: 20 },
        tariff: { country_code: 'ZZ', party_id: 'OWN', id: 't', currency: 'EUR', elements: [{}], last_updated: '2026-01-01T00:00:00Z' },
      },
    ];
    for (const more of others) expect([more, kept(price(more))?.id]).toEqual([more, idOf(61)]);
    expect(kept({ ...price(), archived: true })?.id).toBe(idOf(61));
  });
  it('is none where it cannot be', () => {
    expect(priceFromPost([], place, { ...SAID, perKWh: '1000000' }, '2026-06-01', idOf(61))).toBeNull();
    expect(priceFromPost([], place, { ...SAID, currency: 'x' }, '2026-06-01', idOf(61))).toBeNull();
  });
});
