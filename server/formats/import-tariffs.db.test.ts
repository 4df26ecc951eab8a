import { recordItem } from '@/core/records/record-schema';
import type { SignedIn } from '../accounts/sessions';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, asRecords, describeWithDatabase, newHousehold, send } from '../fixtures/household';
import { recordsOf } from '../records/record-tables';
import { previewTariffs, type TariffChoice, takeTariffs } from './import-tariffs';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const PLAN = '0199d27f-0000-7000-8000-00000000a001';
const PROVIDER = '0199d27f-0000-7000-8000-00000000a002';
const tariff = (id: string, price: number) => ({
  country_code: 'SI',
  party_id: 'BLU',
  id,
  currency: 'EUR',
  elements: [{ price_components: [{ type: 'ENERGY', price, vat: 22, step_size: 1 }] }],
  start_date_time: '2026-05-01T00:00:00Z',
  last_updated: '2026-04-01T00:00:00Z',
});
const file = new TextEncoder().encode(JSON.stringify([tariff('G', 0.5), tariff('M', 0.4), { ...tariff('X', 1), currency: 'euro' }]));
const choice = (pointer: string, more: Partial<TariffChoice> = {}): TariffChoice => ({
  pointer,
  planId: null,
  providerId: null,
  siteId: null,
  from: '2026-05-01',
  until: null,
  ...more,
});
const signedIn = (who: Member): SignedIn => ({ ...who, zone: 'UTC' }) as SignedIn;

describeWithDatabase('Tariffs of a network', () => {
  it('come in as its prices where somebody says for whom, each once; one that is refused keeps the others from nothing', async () => {
    const who = signedIn(await newHousehold());
    const place = await addPlace(who);
    await send(
      who,
      asRecords([
        recordItem('plan', PLAN, { networkId: place.networkId, name: 'Barn Plus', currency: 'EUR', from: '2026-01-01' }),
        recordItem('provider', PROVIDER, { name: 'Roam' }),
      ]),
    );
    expect(await previewTariffs(who, place.networkId, file)).toMatchObject({
      ok: true,
      preview: {
        rows: [
          { pointer: '/0', by: 'SI*BLU*G', perKWh: '0.61', from: '2026-05-01', until: null, here: false },
          { pointer: '/1', perKWh: '0.488', here: false },
        ],
        leftOut: [{ pointer: '/2/currency' }],
      },
    });
    const chosen = [
      choice('/0'),
      choice('/1', { planId: PLAN, siteId: place.siteId, until: '2026-12-31' }),
      choice('/7'),
      choice('/1', { siteId: PLAN }),
      choice('/0', { providerId: PLAN }),
      choice('/0', { planId: place.siteId }),
      choice('/0', { planId: PLAN, providerId: PROVIDER }),
    ];
    expect(await takeTariffs(who, place.networkId, file, chosen)).toMatchObject({
      taken: 2,
      refused: [
        { pointer: '/7' },
        { pointer: '/1', reason: 'siteId is no site of this network' },
        { pointer: '/0', reason: 'providerId is no provider here' },
        { pointer: '/0', reason: 'planId is no plan here' },
        { pointer: '/0', reason: 'fields.providerId Either a plan or a provider' },
      ],
      preview: { rows: [{ here: true }, { here: true }] },
    });
    expect(await takeTariffs(who, place.networkId, file, chosen.slice(0, 2))).toMatchObject({ taken: 0, refused: [] });
    const kept = (await recordsOf(who.householdId, 'tariff')).map((t) => t.fields).sort((a, b) => (a.perKWh ?? '').localeCompare(b.perKWh ?? ''));
    expect(kept).toMatchObject([
      { networkId: place.networkId, siteId: place.siteId, planId: PLAN, perKWh: '0.488', validFrom: '2026-05-01', validUntil: '2026-12-31' },
      { networkId: place.networkId, siteId: null, planId: null, perKWh: '0.61', tariff: tariff('G', 0.5) },
    ]);
    // One that was put away comes into use again where it is chosen, and not by itself.
    const [first] = (await recordsOf(who.householdId, 'tariff')).filter((t) => t.fields.siteId === null);
    await send(who, asRecords([{ type: 'tariff', id: first?.id, baseRev: first?.rev, archived: true, fields: {} }]));
    expect(await previewTariffs(who, place.networkId, file)).toMatchObject({ preview: { rows: [{ here: false }, { here: true }] } });
    expect(await takeTariffs(who, place.networkId, file, [choice('/0')])).toMatchObject({ taken: 1, refused: [], preview: { rows: [{ here: true }, {}] } });
    expect(await recordsOf(who.householdId, 'tariff')).toHaveLength(2);
    // One that somebody ended stays as it is, and it is said.
    const [now] = (await recordsOf(who.householdId, 'tariff')).filter((t) => t.fields.siteId === null);
    await send(who, asRecords([{ type: 'tariff', id: now?.id, baseRev: now?.rev, fields: { validUntil: '2026-11-30' } }]));
    expect(await takeTariffs(who, place.networkId, file, [choice('/0')])).toMatchObject({
      taken: 0,
      refused: [{ pointer: '/0', reason: 'is here and was changed since: it stays as it is' }],
    });
    expect((await recordsOf(who.householdId, 'tariff')).find((t) => t.id === now?.id)?.fields.validUntil).toBe('2026-11-30');
    // Prices for another's network are nobody's.
    const other = signedIn(await newHousehold());
    expect(await takeTariffs(other, place.networkId, file, [choice('/0')])).toEqual({ ok: false, refused: { code: 'no_network' } });
    expect(await recordsOf(other.householdId, 'tariff')).toEqual([]);
  });

  it('say what a file is that holds none', async () => {
    const who = signedIn(await newHousehold());
    const { networkId } = await addPlace(who);
    const of = (text: string) => previewTariffs(who, networkId, new TextEncoder().encode(text));
    expect(await of('[]')).toEqual({ ok: false, refused: { code: 'no_tariffs' } });
    expect(await of('{')).toMatchObject({ ok: false, refused: { code: 'not_json' } });
    const many = Array.from({ length: 501 }, (_, i) => tariff(String(i), 1));
    expect(await of(JSON.stringify(many))).toEqual({ ok: false, refused: { code: 'too_many' } });
    expect(await of(JSON.stringify(many.slice(1)))).toMatchObject({ ok: true });
  });
});
