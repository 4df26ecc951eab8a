import * as z from '@/core/units/schema';
import { printSeen } from '../../units/zoned';
import { currency, day, payText, price } from '../field-schema';
import { note } from '../form-parts';
import { garageType } from './record-type';

/** What a unit of one currency was worth in another on a day: sums over currencies are made by these alone, and name them. */
export const rate = garageType({
  one: 'Exchange rate',
  many: 'Exchange rates',
  schema: z
    .object({
      currency,
      into: currency,
      /** So much of `into` for one of `currency`. */
      rate: price(1_000_000).check(z.refine((s) => Number(s) > 0, 'More than nothing')),
      on: day,
      note: payText(300),
    })
    .check(
      z.superRefine((r, ctx) => {
        if (r.currency === r.into) ctx.addIssue({ code: 'custom', path: ['into'], message: 'The same currency twice' });
      }),
    ),
  name: (f) => `1 ${f.currency} = ${f.rate} ${f.into}`,
  columns: { currency: 'text' },
  garage: { place: 8, row: (f) => ({ line: [`of ${printSeen(f.on)} ${f.on.slice(0, 4)}`, f.note] }) },
  form: [
    {
      head: 'Exchange rate',
      fields: [
        { kind: 'text', path: 'currency', label: 'One', hint: 'Three letters, such as CHF' },
        { kind: 'money', path: 'rate', label: 'is so much' },
        { kind: 'text', path: 'into', label: 'in', hint: 'The household’s currency, for its sums' },
        { kind: 'date', path: 'on', label: 'On', hint: 'It holds for bills from this day on, until the next' },
        note,
      ],
    },
  ],
});
