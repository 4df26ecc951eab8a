import { accepted, note, order, photos, same } from '../form-parts';
import { siteSchema } from '../place-schema';
import { recordType } from './record-type';

export const site = recordType({
  one: 'Site',
  many: 'Sites',
  schema: siteSchema,
  name: (f) => f.name,
  columns: { networkId: 'id', name: 'text', zone: 'text', latitude: 'number', longitude: 'number' },
  form: [
    {
      head: 'Site',
      fields: [
        { kind: 'text', path: 'name', label: 'Name' },
        { kind: 'ref', path: 'networkId', label: 'Network', type: 'network', makes: true },
        { kind: 'number', path: 'latitude', label: 'Latitude', hint: 'Degrees, north is positive' },
        { kind: 'number', path: 'longitude', label: 'Longitude', hint: 'Degrees, east is positive' },
        { kind: 'text', path: 'zone', label: 'Time zone', hint: 'Filled in from the coordinates' },
      ],
    },
    {
      head: 'On arrival',
      fields: [
        { kind: 'text', path: 'entrance', label: 'Entrance' },
        { kind: 'text', path: 'direction', label: 'Direction', hint: 'Such as: southbound only' },
        { kind: 'text', path: 'openingHours', label: 'Opening hours' },
        { kind: 'text', path: 'barrier', label: 'Barrier' },
        { kind: 'number', path: 'heightLimit_m', label: 'Height limit', unit: 'm' },
        { kind: 'phone', path: 'helpline', label: 'Helpline on the post' },
        { kind: 'phone', path: 'emergencyNumber', label: 'Emergency number', hint: 'Only where it is not that of the country' },
      ],
    },
    {
      head: 'Paying and staying',
      fields: [
        accepted,
        order,
        { kind: 'number', path: 'maxStay_min', label: 'Max stay', unit: 'min' },
        { kind: 'text', path: 'overstay', label: 'Overstay rule', hint: 'Such as: 10.00 over 70 min' },
        { kind: 'number', path: 'overstayAfter_min', label: 'Overstay after', unit: 'min connected' },
        { kind: 'text', path: 'idle', label: 'Idle rule', hint: 'Such as: 0.20 a minute after 5' },
        { kind: 'number', path: 'idleGrace_min', label: 'Idle grace', unit: 'min' },
      ],
    },
    {
      head: 'Around',
      fields: [
        { kind: 'text', path: 'shelter', label: 'Shelter' },
        { kind: 'text', path: 'light', label: 'Light' },
        { kind: 'choice', path: 'safeAtNight', label: 'Feels safe at night', options: same(['yes', 'partly', 'no']) },
        { kind: 'text', path: 'toilets', label: 'Toilets' },
        { kind: 'text', path: 'food', label: 'Food' },
        { kind: 'text', path: 'shop', label: 'Shop' },
        { kind: 'yesno', path: 'bins', label: 'Bins' },
        { kind: 'yesno', path: 'squeegee', label: 'Squeegee' },
      ],
    },
    { head: 'Notes and photos', fields: [note, photos] },
  ],
});
