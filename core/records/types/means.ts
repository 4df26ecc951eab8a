import { expiresSoon, hasExpired } from '../expiry';
import { MEANS_OPTIONS, note } from '../form-parts';
import { meansSchema } from '../garage-schema';
import { meansLabel } from '../means-kind';
import { garageType } from './record-type';

export const means = garageType({
  one: 'Way to pay',
  many: 'Ways to pay',
  schema: meansSchema,
  name: (f) => f.label,
  columns: { kind: 'text', label: 'text', providerId: 'id', networkId: 'id' },
  garage: {
    place: 3,
    row: (f, { nameOf, today }) => ({
      line: [meansLabel(f.kind), f.networkId ? `only at ${nameOf(f.networkId)}` : null, f.providerId ? nameOf(f.providerId) : null],
      heed: hasExpired(f.expires, today) ? `expired ${f.expires}` : expiresSoon(f.expires, today) ? `expires ${f.expires}` : null,
    }),
  },
  form: [
    {
      head: 'Way to pay',
      fields: [
        { kind: 'choice', path: 'kind', label: 'Kind', options: MEANS_OPTIONS, required: true },
        { kind: 'text', path: 'label', label: 'Label', hint: 'In words; never a card or account number' },
        { kind: 'ref', path: 'networkId', label: 'Only at the network', type: 'network', makes: true },
        { kind: 'ref', path: 'providerId', label: 'Provider', type: 'provider', makes: true },
        { kind: 'month', path: 'expires', label: 'Expires', hint: 'Year and month, such as 2026-03' },
        note,
      ],
    },
  ],
});
