import { FAULTS, SIDES } from '../faults/fault-list';
import { MEANS_KINDS } from '../records/means-kind';
import { BAY_LABELS, CHANGE_LABELS, GONE_LABELS, HELP_RESULTS, LEAVE_LABELS, STOP_LABELS } from './event-label';
import type { Kind } from './kinds';
import { type FieldValue, fieldAt } from './set-fields';

type Options = readonly (readonly [value: string, label: string])[];
/** One field of a payload as a person changes it. `decimal`: kept as a decimal string; `ref`: the id of a record of that type; `attempts`: events of attempts, as text with spaces between. */
export type CorrectableField = { field: string; label: string /** The stall it is about. */; stallId?: string } & (
  | { is: 'number' | 'decimal' | 'text' | 'yes_no' | 'attempts' }
  | { is: 'choice'; options: Options }
  | { is: 'ref'; type: 'site' | 'stall' | 'car' | 'adapter' | 'means' }
);

const number = (field: string, label: string): CorrectableField => ({ field, label, is: 'number' });
const decimal = (field: string, label: string): CorrectableField => ({ field, label, is: 'decimal' });
const text = (field: string, label: string): CorrectableField => ({ field, label, is: 'text' });
const choice = (field: string, label: string, options: Options): CorrectableField => ({ field, label, is: 'choice', options });
const entries = (labels: Readonly<Record<string, string>>): Options => Object.entries(labels);

const MEANS: CorrectableField[] = [
  choice(
    'meansKind',
    'Kind of means',
    MEANS_KINDS.map((m) => [m.kind, m.label] as const),
  ),
  { field: 'meansId', label: 'Means held', is: 'ref', type: 'means' },
  decimal('holdAmount', 'Amount held back'),
  text('currency', 'Currency'),
];
const FAULT = choice(
  'fault',
  'What it said',
  FAULTS.filter((f) => f.refusal).map((f) => [f.code, f.label] as const),
);
const SCREEN = choice('screen', 'Whose screen', [
  ['stall', 'Stall’s screen'],
  ['car', 'Car’s screen'],
]);

/** Fields of each kind that can be corrected afterwards; every kind's time can. What is not listed is taken back and recorded anew. */
const FIELDS: Partial<Record<Kind, readonly CorrectableField[]>> = {
  pulled_in: [
    { field: 'siteId', label: 'Site', is: 'ref', type: 'site' },
    { field: 'carId', label: 'Car', is: 'ref', type: 'car' },
    number('socPct', 'Battery on arrival, %'),
    number('seen.free', 'Free stalls seen'),
    number('seen.total', 'Stalls in all'),
    number('seen.outOfOrder', 'Out of order'),
    number('odometerKm', 'Odometer, km'),
    number('airC', 'Air, °C'),
    { field: 'preconditioned', label: 'Battery preconditioned', is: 'yes_no' },
  ],
  stall_chosen: [{ field: 'stallId', label: 'Stall', is: 'ref', type: 'stall' }, text('connectorId', 'Connector')],
  stall_named: [text('text', 'Named in the app or kiosk')],
  first_act: [
    choice('what', 'First act', [
      ['handle', 'Handle taken'],
      ['app', 'In the app'],
      ['kiosk', 'At the kiosk'],
    ]),
  ],
  adapter_fitted: [{ field: 'adapterId', label: 'Adapter', is: 'ref', type: 'adapter' }],
  plugged: [text('connectorId', 'Connector')],
  means_shown: MEANS,
  means_accepted: MEANS,
  means_refused: [...MEANS, FAULT],
  price_shown: [text('where', 'Where'), text('text', 'What it said'), decimal('perKWh', 'Per kWh'), text('currency', 'Currency')],
  claimed: [
    choice('by', 'Claimed by', [
      ['screen', 'Screen'],
      ['light', 'Light'],
      ['beep', 'Beep'],
      ['app', 'App'],
    ]),
  ],
  power_seen: [
    SCREEN,
    choice('mark', 'What was seen', [
      ['kW', 'kW'],
      ['kWh', 'kWh counting up'],
      ['A', 'Amps'],
    ]),
    { field: 'late', label: 'Seen late', is: 'yes_no' },
  ],
  reading: [
    SCREEN,
    number('socPct', 'Battery, %'),
    number('kW', 'Power, kW'),
    decimal('kWh', 'Delivered, kWh'),
    decimal('cost', 'Cost'),
    text('currency', 'Currency'),
    number('V', 'Volts'),
    number('A', 'Amps'),
    decimal('meterStart', 'Meter at the start, kWh'),
    decimal('meterEnd', 'Meter at the end, kWh'),
    number('batteryC', 'Battery, °C'),
  ],
  change: [choice('what', 'What changed', entries(CHANGE_LABELS)), text('text', 'In words')],
  fault: [
    choice(
      'code',
      'Fault',
      FAULTS.map((f) => [f.code, f.label] as const),
    ),
    choice(
      'side',
      'Whose side it seems',
      SIDES.map((s) => [s, s] as const),
    ),
    text('text', 'What it said'),
  ],
  stop_asked: [choice('by', 'Stopped by', entries(STOP_LABELS))],
  power_gone: [choice('why', 'Why', entries(GONE_LABELS))],
  stuck: [
    choice('end', 'Stuck at', [
      ['car', 'The car'],
      ['post', 'The post'],
    ]),
  ],
  help_ended: [choice('result', 'Result', entries(HELP_RESULTS))],
  pulled_out: [choice('reason', 'Why you left', entries(LEAVE_LABELS))],
  bill: [
    { field: 'sessions', label: 'For which attempts', is: 'attempts' },
    decimal('amount', 'Charged'),
    text('currency', 'Currency'),
    decimal('kWh', 'kWh on the bill'),
    number('minutes', 'Minutes on the bill'),
    decimal('tax', 'Of that tax'),
    text('payee', 'Paid to'),
    text('ref', 'Number of the bill'),
    choice('state', 'State', [
      ['charged', 'Charged'],
      ['pending', 'Pending'],
      ['refunded', 'Refunded'],
    ]),
  ],
  rating: [number('stars', 'Stars, 1 to 5')],
  note: [text('text', 'Note')],
  figure_given: [
    number('seconds', 'Seconds'),
    number('plusMinus_s', '± seconds'),
    { field: 'used', label: 'Use it in place of the derived figure', is: 'yes_no' },
  ],
};

/** @param payload of the event: a survey has a field for each bay that was looked at or not */
export const correctableFields = (kind: Kind, payload: Readonly<Record<string, unknown>>): readonly CorrectableField[] =>
  kind === 'survey' ? bayFields(payload) : (FIELDS[kind] ?? []);

const bayFields = (payload: Readonly<Record<string, unknown>>): CorrectableField[] =>
  (Array.isArray(payload.stalls) ? (payload.stalls as { stallId: string; state: string }[]) : []).flatMap((bay, i): CorrectableField[] => [
    { ...choice(`stalls.${i}.state`, `Bay ${i + 1}`, entries(BAY_LABELS)), stallId: bay.stallId },
    ...(bay.state === 'derated' ? [{ ...number(`stalls.${i}.kW`, 'derated to, kW'), stallId: bay.stallId }] : []),
  ]);

/** What stands in the fields of an event, as text for a form: empty is not read. */
export const correctableText = (kind: Kind, payload: Readonly<Record<string, unknown>>): Record<string, string> =>
  Object.fromEntries(
    correctableFields(kind, payload).map((f) => {
      const value = fieldAt(payload, f.field) ?? '';
      return [f.field, Array.isArray(value) ? value.join(' ') : String(value)];
    }),
  );

/**
 * What a form with these texts changes.
 * @returns the fields to set, `null` for those emptied, and what is wrong by field; the record's own bounds are checked where it is kept
 */
export function correctionSet(
  kind: Kind,
  payload: Readonly<Record<string, unknown>>,
  typed: Readonly<Record<string, string>>,
): { set: Record<string, FieldValue>; problems: Record<string, string> } {
  const before = correctableText(kind, payload);
  const set: Record<string, FieldValue> = {};
  const problems: Record<string, string> = {};
  for (const f of correctableFields(kind, payload)) {
    const text = (typed[f.field] ?? '').trim();
    if (text === before[f.field]) continue;
    const figure = text.replace(',', '.');
    if (f.is === 'attempts') set[f.field] = text.split(' ').filter(Boolean);
    else if (text === '') set[f.field] = null;
    else if ((f.is === 'number' || f.is === 'decimal') && !/^-?\d+(\.\d+)?$/.test(figure)) problems[f.field] = 'Not a number';
    else set[f.field] = f.is === 'number' ? Number(figure) : f.is === 'decimal' ? figure : f.is === 'yes_no' ? text === 'true' : text;
  }
  return { set, problems };
}
