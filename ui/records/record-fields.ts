import { CONNECTORS, INLETS } from '@/core/records/connector';
import { MEANS_KINDS } from '@/core/records/means-kind';
import { PORTS, type SHARING, STALL_STATES } from '@/core/records/place-schema';
import type { RecordType } from '@/core/records/record-schema';
import type { Field, FieldGroup, Option } from './form-fields';

const same = (values: readonly string[]): Option[] => values.map((v) => [v, v.charAt(0).toUpperCase() + v.slice(1)]);
const plain = (values: readonly string[]): Option[] => values.map((v) => [v, v]);
const KINDS: Option[] = MEANS_KINDS.map((m) => [m.kind, m.label]);
const note: Field = { kind: 'long', path: 'note', label: 'Note' };
const photos: Field = { kind: 'photos', path: 'photos', label: 'Photos' };
const accepted: Field = { kind: 'many', path: 'meansAccepted', label: 'Means accepted', options: KINDS };
const order: Field = { kind: 'text', path: 'orderThatWorks', label: 'Order that works', hint: 'Such as: start, then card' };

/** The fields of each type's form, in the words of the sign and of the trade. */
export const RECORD_FIELDS: Record<Exclude<RecordType, 'tariff'>, FieldGroup[]> = {
  network: [
    {
      head: 'Network',
      fields: [{ kind: 'text', path: 'name', label: 'Name' }, { kind: 'phone', path: 'helpline', label: 'Helpline number' }, note],
    },
  ],
  provider: [
    {
      head: 'Provider',
      fields: [
        { kind: 'text', path: 'name', label: 'Name', hint: 'Who bills, when that is not the network' },
        { kind: 'phone', path: 'helpline', label: 'Helpline number' },
        note,
      ],
    },
  ],
  site: [
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
  stall: [
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
  car: [
    {
      head: 'Car',
      fields: [
        { kind: 'text', path: 'name', label: 'Name' },
        { kind: 'number', path: 'usableKWh', label: 'Usable battery', unit: 'kWh' },
        { kind: 'many', path: 'connectors', label: 'Inlets', options: plain(INLETS), required: true },
        { kind: 'choice', path: 'port', label: 'Port sits at', options: same(PORTS) },
        { kind: 'number', path: 'kWhPer100km', label: 'Usual consumption', unit: 'kWh/100 km' },
      ],
    },
    {
      head: 'Power',
      fields: [
        { kind: 'number', path: 'maxDCkW', label: 'At most DC', unit: 'kW' },
        { kind: 'number', path: 'maxACkW', label: 'At most AC', unit: 'kW' },
        {
          kind: 'choice',
          path: 'acPhases',
          label: 'AC phases',
          options: [
            ['1', 'One'],
            ['2', 'Two'],
            ['3', 'Three'],
          ],
          numeric: true,
        },
        {
          kind: 'choice',
          path: 'voltClass',
          label: 'Volt class',
          options: [
            ['400', '400 V'],
            ['800', '800 V'],
          ],
          numeric: true,
        },
        { kind: 'number', path: 'packV0', label: 'Pack at 0 %', unit: 'V' },
        { kind: 'number', path: 'packV100', label: 'Pack at 100 %', unit: 'V' },
        { kind: 'number', path: 'boosterKW', label: 'Booster at low-volt stalls', unit: 'kW' },
        { kind: 'curve', path: 'curve', label: 'Own charge curve', hint: 'A line per point: battery %, then kW, such as 10 121' },
      ],
    },
    { head: 'Note', fields: [note] },
  ],
  adapter: [
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
  means: [
    {
      head: 'Way to pay',
      fields: [
        { kind: 'choice', path: 'kind', label: 'Kind', options: KINDS, required: true },
        { kind: 'text', path: 'label', label: 'Label', hint: 'In words; never a card or account number' },
        { kind: 'ref', path: 'networkId', label: 'Only at the network', type: 'network', makes: true },
        { kind: 'ref', path: 'providerId', label: 'Provider', type: 'provider', makes: true },
        { kind: 'month', path: 'expires', label: 'Expires', hint: 'Year and month, such as 2026-03' },
        note,
      ],
    },
  ],
  plan: [
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
  enrolment: [
    {
      head: 'Enrolment',
      fields: [
        {
          kind: 'choice',
          path: 'kind',
          label: 'Kind',
          options: [
            ['autocharge', 'Autocharge'],
            ['plug_and_charge', 'Plug & Charge'],
          ],
          required: true,
        },
        { kind: 'ref', path: 'carId', label: 'Car', type: 'car' },
        { kind: 'ref', path: 'networkId', label: 'Network', type: 'network', makes: true },
        { kind: 'ref', path: 'providerId', label: 'Contract with', type: 'provider', makes: true },
        { kind: 'date', path: 'enrolledOn', label: 'Enrolled on', hint: 'The network or the car says so' },
        { kind: 'date', path: 'chargedOn', label: 'First charged by it on', hint: 'Power came with nothing else shown' },
      ],
    },
    {
      head: 'Steps',
      fields: [
        {
          kind: 'list',
          path: 'steps',
          label: 'Steps',
          rowName: 'Step',
          most: 20,
          blank: { where: 'home' },
          row: [
            {
              kind: 'choice',
              path: 'where',
              label: 'Where',
              options: [
                ['home', 'At home'],
                ['stall', 'At the stall'],
              ],
              required: true,
            },
            { kind: 'text', path: 'act', label: 'What to do' },
            { kind: 'text', path: 'shows', label: 'What shows that it worked' },
            { kind: 'date', path: 'doneOn', label: 'Done on' },
          ],
        },
        note,
      ],
    },
  ],
};

export const RECORD_NAMES: Record<RecordType, { one: string; many: string }> = {
  network: { one: 'Network', many: 'Networks' },
  provider: { one: 'Provider', many: 'Providers' },
  site: { one: 'Site', many: 'Sites' },
  stall: { one: 'Stall', many: 'Stalls' },
  car: { one: 'Car', many: 'Cars' },
  adapter: { one: 'Adapter', many: 'Adapters' },
  means: { one: 'Way to pay', many: 'Ways to pay' },
  plan: { one: 'Plan', many: 'Plans' },
  enrolment: { one: 'Enrolment', many: 'Enrolments' },
  tariff: { one: 'Tariff', many: 'Tariffs' },
};

/** The label of a record's field, for messages and differences. */
export function fieldLabel(type: RecordType, path: string): string {
  if (type === 'tariff') return path;
  const fields = RECORD_FIELDS[type].flatMap((g) => g.fields);
  return fields.find((f) => f.path === path || f.path.startsWith(`${path}.`))?.label ?? path;
}
