import { CONNECTORS, INLETS } from '../connector';
import { note, plain } from '../form-parts';
import { adapterSchema } from '../garage-schema';
import { garageType } from './record-type';

export const adapter = garageType({
  one: 'Adapter',
  many: 'Adapters',
  schema: adapterSchema,
  name: (f) => f.name,
  columns: { name: 'text' },
  garage: {
    place: 2,
    row: (f) => ({
      line: [`${f.from} to ${f.to}`, f.maxA !== null && `${f.maxA} A`, f.maxV !== null && `${f.maxV} V`],
      heed: f.approved === false ? 'not approved by the car’s maker' : f.approved === null ? 'approval not noted' : null,
    }),
  },
  form: [
    {
      head: 'Adapter',
      fields: [
        { kind: 'text', path: 'name', label: 'Name' },
        { kind: 'choice', path: 'from', label: 'From the stall’s', options: plain(CONNECTORS), required: true },
        { kind: 'choice', path: 'to', label: 'To the car’s', options: plain(INLETS), required: true },
        { kind: 'number', path: 'maxA', label: 'Rated for', unit: 'A' },
        { kind: 'number', path: 'maxV', label: 'Rated for', unit: 'V' },
        { kind: 'yesno', path: 'approved', label: 'Approved by the car’s maker' },
        { kind: 'text', path: 'firmware', label: 'Firmware' },
        { kind: 'date', path: 'firmwareDate', label: 'Firmware of' },
        note,
      ],
    },
  ],
});
