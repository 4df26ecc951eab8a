import { printMoney } from '../../units/money';
import { printSeen } from '../../units/zoned';
import { note } from '../form-parts';
import { planSchema } from '../garage-schema';
import { garageType } from './record-type';

export const plan = garageType({
  one: 'Plan',
  many: 'Plans',
  schema: planSchema,
  name: (f) => f.name,
  columns: { name: 'text', providerId: 'id', networkId: 'id' },
  garage: {
    place: 4,
    row: (f, { nameOf, today }) => ({
      line: [
        nameOf(f.networkId ?? f.providerId),
        f.monthlyFee !== null && `${printMoney(f.monthlyFee, f.currency)} a month`,
        `from ${printSeen(f.from)} ${f.from.slice(0, 4)}`,
      ],
      heed: f.until !== null && f.until < today ? `ended ${printSeen(f.until)} ${f.until.slice(0, 4)}` : null,
    }),
  },
  form: [
    {
      head: 'Plan',
      fields: [
        { kind: 'text', path: 'name', label: 'Name' },
        { kind: 'ref', path: 'networkId', label: 'Network', type: 'network', makes: true },
        { kind: 'ref', path: 'providerId', label: 'Provider', type: 'provider', makes: true },
        { kind: 'money', path: 'monthlyFee', label: 'A month' },
        { kind: 'text', path: 'currency', label: 'Currency' },
        { kind: 'date', path: 'from', label: 'From' },
        { kind: 'date', path: 'until', label: 'Until' },
        note,
      ],
    },
  ],
});
