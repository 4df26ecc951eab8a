import { note } from '../form-parts';
import { providerSchema } from '../place-schema';
import { garageType } from './record-type';

export const provider = garageType({
  one: 'Provider',
  many: 'Providers',
  schema: providerSchema,
  name: (f) => f.name,
  columns: { name: 'text' },
  garage: { place: 7, row: (f) => ({ line: [f.helpline !== null && `helpline ${f.helpline}`] }) },
  form: [
    {
      head: 'Provider',
      fields: [
        { kind: 'text', path: 'name', label: 'Name', hint: 'Who bills, when that is not the network' },
        { kind: 'phone', path: 'helpline', label: 'Helpline number' },
        note,
      ],
    },
  ],
});
