import { CONNECTORS } from '../connector';
import { accepted, note, order, photos, plain, same } from '../form-parts';
import { PORTS, type SHARING, STALL_STATES, stallSchema } from '../place-schema';
import { recordType } from './record-type';

export const stall = recordType({
  one: 'Stall',
  many: 'Stalls',
  schema: stallSchema,
  name: (f) => f.name,
  columns: { siteId: 'id', name: 'text', otherName: 'text' },
  form: [
    {
      head: 'Stall',
      fields: [
        { kind: 'text', path: 'name', label: 'Number or name on the post' },
        { kind: 'text', path: 'otherName', label: 'Name in the app or on a sticker' },
        {
          kind: 'list',
          path: 'outlets',
          label: 'Connectors',
          rowName: 'Connector',
          most: 4,
          blank: { connector: 'CCS2' },
          row: [
            { kind: 'choice', path: 'connector', label: 'Connector', options: plain(CONNECTORS), required: true },
            { kind: 'number', path: 'ratedKW', label: 'On the plate', unit: 'kW' },
            { kind: 'number', path: 'appKW', label: 'In the app', unit: 'kW' },
            { kind: 'number', path: 'maxA', label: 'At most', unit: 'A' },
            { kind: 'number', path: 'minV', label: 'Least', unit: 'V' },
            { kind: 'number', path: 'maxV', label: 'Most', unit: 'V' },
            {
              kind: 'choice',
              path: 'phases',
              label: 'Phases (AC)',
              options: [
                ['1', 'One'],
                ['3', 'Three'],
              ],
              numeric: true,
            },
            { kind: 'choice', path: 'cable', label: 'Cable', options: same(['tethered', 'own cable']) },
          ],
        },
        { kind: 'text', path: 'model', label: 'Stall model' },
      ],
    },
    {
      head: 'State seen last',
      fields: [
        { kind: 'choice', path: 'state.is', label: 'State', options: same(STALL_STATES) },
        { kind: 'number', path: 'state.kW', label: 'Derated to', unit: 'kW' },
        { kind: 'date', path: 'state.seenOn', label: 'Seen on' },
        { kind: 'text', path: 'state.by', label: 'Seen by' },
      ],
    },
    {
      head: 'Cabinet',
      fields: [
        { kind: 'text', path: 'cabinet', label: 'Cabinet', hint: 'Stalls with the same entry stand on one' },
        {
          kind: 'choice',
          path: 'sharing',
          label: 'Its stalls',
          options: [
            ['own', 'Have their own power each'],
            ['shared', 'Share its power'],
            ['one at a time', 'Charge one car at a time'],
          ] satisfies [(typeof SHARING)[number], string][],
        },
        { kind: 'number', path: 'cabinetKW', label: 'Cabinet gives', unit: 'kW' },
        { kind: 'choice', path: 'builtInAdapter', label: 'Built-in adapter to', options: plain(CONNECTORS) },
      ],
    },
    {
      head: 'Bay',
      fields: [
        { kind: 'many', path: 'portsReached', label: 'Cable reaches a port at', options: same(PORTS) },
        { kind: 'number', path: 'cableReach_m', label: 'Cable reach', unit: 'm' },
        { kind: 'yesno', path: 'pullThrough', label: 'Pull-through bay' },
        { kind: 'yesno', path: 'trailer', label: 'Room for a trailer' },
        { kind: 'yesno', path: 'stepFree', label: 'Step-free bay' },
        { kind: 'number', path: 'screenHeight_cm', label: 'Height of the screen', unit: 'cm' },
      ],
    },
    {
      head: 'Paying and staying',
      fields: [
        { ...accepted, hint: 'Only where it differs from the site' },
        order,
        { kind: 'number', path: 'maxStay_min', label: 'Max stay', unit: 'min' },
        { kind: 'words', path: 'evseUids', label: 'EVSE ids', hint: 'As in the operator’s data, divided by commas' },
      ],
    },
    { head: 'Notes and photos', fields: [note, photos] },
  ],
});
