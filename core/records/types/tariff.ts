import * as z from '@/core/units/schema';
import { currency, day, maybe, price, uuid } from '../field-schema';
import { recordType } from './record-type';

export const tariff = recordType({
  one: 'Tariff',
  many: 'Tariffs',
  schema: z.object({
    networkId: uuid,
    /** Of this site alone; `null`: of every site of the network. */
    siteId: maybe(uuid),
    currency,
    perKWh: price(100),
    startFee: price(100),
    validFrom: day,
  }),
  name: () => '',
  columns: { networkId: 'id', siteId: 'id' },
  form: [],
});
