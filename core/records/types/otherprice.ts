import * as z from '@/core/units/schema';
import { printMoney } from '../../units/money';
import { printSeen } from '../../units/zoned';
import { currency, day, maybeAmount, payText, price } from '../field-schema';
import { note } from '../form-parts';
import { garageType } from './record-type';

/** What charging away from home is held against: charging at home, fuel, and an hour of the driver's. */
export const OTHER_PRICES = {
  home: { label: 'Charging at home', per: 'a kWh' },
  petrol: { label: 'Petrol', per: '' },
  diesel: { label: 'Diesel', per: '' },
  hour: { label: 'Waiting', per: 'an hour' },
} as const;
/** What fuel is sold by. */
export const FUEL_UNITS = { litre: 'a litre', imperial: 'an imperial gallon', us: 'a US gallon' } as const;
export type FuelUnit = keyof typeof FUEL_UNITS;

export const otherprice = garageType({
  one: 'Other price',
  many: 'Other prices',
  schema: z
    .object({
      what: z.enum(['home', 'petrol', 'diesel', 'hour']),
      price: price(),
      currency,
      /** Of fuel: what it is sold by. */
      unit: z._default(z.enum(['litre', 'imperial', 'us']), 'litre'),
      /** Of fuel: what the car one would drive needs; litres per 100 km, or miles per gallon where it is sold by gallons. */
      needs: maybeAmount('', 1, 300),
      from: day,
      note: payText(300),
    })
    .check(
      z.superRefine((p, ctx) => {
        if ((p.what === 'petrol' || p.what === 'diesel') && p.needs === null)
          ctx.addIssue({ code: 'custom', path: ['needs'], message: 'How much does that car need?' });
      }),
    ),
  name: (f) => OTHER_PRICES[f.what].label,
  columns: { what: 'text' },
  garage: {
    place: 9,
    row: (f) => ({
      line: [
        `${printMoney(f.price, f.currency)} ${OTHER_PRICES[f.what].per || FUEL_UNITS[f.unit]}`,
        f.needs !== null && (f.what === 'petrol' || f.what === 'diesel') && `${f.needs} ${f.unit === 'litre' ? 'l/100 km' : 'mi/gal'}`,
        `from ${printSeen(f.from)} ${f.from.slice(0, 4)}`,
      ],
    }),
  },
  form: [
    {
      head: 'Other price',
      fields: [
        {
          kind: 'choice',
          path: 'what',
          label: 'What',
          options: [
            ['home', 'Charging at home, a kWh'],
            ['petrol', 'Petrol at the pump'],
            ['diesel', 'Diesel at the pump'],
            ['hour', 'An hour of waiting'],
          ],
          required: true,
        },
        { kind: 'money', path: 'price', label: 'Price' },
        { kind: 'text', path: 'currency', label: 'Currency' },
        {
          kind: 'choice',
          path: 'unit',
          label: 'Fuel is sold by',
          options: [
            ['litre', 'Litre'],
            ['imperial', 'Imperial gallon'],
            ['us', 'US gallon'],
          ],
          required: true,
        },
        { kind: 'number', path: 'needs', label: 'That car needs', hint: 'Litres per 100 km; miles per gallon where it is sold by gallons' },
        { kind: 'date', path: 'from', label: 'From' },
        note,
      ],
    },
  ],
});
