import { note } from '../form-parts';
import { networkSchema } from '../place-schema';
import { garageType } from './record-type';

export const network = garageType({
  one: 'Network',
  many: 'Networks',
  schema: networkSchema,
  name: (f) => f.name,
  columns: { name: 'text' },
  garage: { place: 6, row: (f) => ({ line: [f.helpline !== null && `helpline ${f.helpline}`] }) },
  form: [
    {
      head: 'Network',
      fields: [{ kind: 'text', path: 'name', label: 'Name' }, { kind: 'phone', path: 'helpline', label: 'Helpline number' }, note],
    },
  ],
});
