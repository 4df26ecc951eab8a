import * as z from '@/core/units/schema';
import { currency, day, listOf, maybe, maybeDay, payText, price, uuid } from '../field-schema';
import type { extraPricing, ocpiTariff } from '../ocpi-tariff';
import { recordType } from './record-type';

/**
 * The object of a price and what stands beside it, by their outline: the whole of it is looked at where it is typed and where it is taken in (price-objects.ts), and a
 * phone, which does neither, need not bring all the rules of a standard.
 */
const outlined = z.looseObject({ currency: z.string(), elements: z.array(z.unknown()) }) as unknown as typeof ocpiTariff;
const beside = z.looseObject({}) as unknown as typeof extraPricing;

/**
 * A price, from a day on. What it is of: all of a network, or the sites named; whom it is for: guests, or those who hold a plan or pay through a provider.
 * `perKWh` and `startFee` are what the post says in one line, tax in; where there is more to it, `tariff` (OCPI 2.2.1) and `extra` say it all.
 */
export const tariff = recordType({
  one: 'Price',
  many: 'Prices',
  schema: z
    .object({
      networkId: uuid,
      /** Of this site alone; `null`: of every site of the network. */
      siteId: maybe(uuid),
      /** Of these sites, too, where it is not of all. */
      moreSiteIds: listOf(uuid, 200, 'At most 200 sites more'),
      planId: maybe(uuid),
      providerId: maybe(uuid),
      currency,
      perKWh: maybe(price()),
      startFee: z._default(price(), '0'),
      tariff: maybe(outlined),
      extra: maybe(beside),
      validFrom: day,
      validUntil: maybeDay,
      note: payText(300),
    })
    .check(
      z.superRefine((t, ctx) => {
        const wrong = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
        if (t.perKWh === null && t.tariff === null) wrong('perKWh', 'What does a kWh cost?');
        if (t.tariff !== null && t.tariff.currency !== t.currency) wrong('currency', 'The tariff is in another currency');
        if (t.tariff === null && t.extra !== null) wrong('extra', 'Needs the tariff it is beside');
        if (t.siteId === null && t.moreSiteIds.length > 0) wrong('siteId', 'The first of the sites is missing');
        if (t.planId !== null && t.providerId !== null) wrong('providerId', 'Either a plan or a provider');
        if (t.validUntil !== null && t.validUntil < t.validFrom) wrong('validUntil', 'Before it begins');
      }),
    ),
  name: () => '',
  columns: { networkId: 'id', siteId: 'id' },
  form: [],
});
