import { localDay } from '../units/zoned';
import { wholeEnergy } from '../visit/delivered';
import type { Visit } from '../visit/derive';
import type { Timing } from '../visit/timing';
import { visitFlags } from '../visit/visit-flags';
import type { Figure } from './figure';

/** A time that is known, and no more than a bound where the figure says so beside it. */
const secondsOf = (t: Timing | undefined): number | null => (t?.known ? t.s : null);
/** A text that is counted by the kilometre must still fit its row. */
const cut = (text: string, max: number) => (text.length <= max ? text : text.slice(0, max));
const handshake = (v: Visit) => v.attempts.find((a) => a.proof)?.times.handshake;

/** Every figure of a visit that lists, sums and comparisons read. Adding one: an entry here, its column in db/, and where it is shown. */
export const VISIT_FIGURES = {
  attemptCount: { column: 'attempts', is: 'number', unit: 'count', definition: 'attempts to start', value: (v) => v.attempts.length },
  failed: {
    column: 'failed',
    is: 'number',
    unit: 'count',
    definition: 'attempts that failed or were given up',
    value: (v) => v.attempts.filter((a) => a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up').length,
  },
  firstTry: { column: 'first_try', is: 'text', unit: '', definition: 'started at the first attempt and the first showing', value: (v) => v.firstTry.answer },
  firstSide: { column: 'first_side', is: 'text', unit: '', definition: 'whose side kept it from starting at the first try', value: (v) => v.firstTry.side },
  ended: { column: 'ended', is: 'text', unit: '', definition: 'with a charge, without one, or not yet', value: (v) => v.ended },
  leftReason: { column: 'left_reason', is: 'text', unit: '', definition: 'why the driver left', value: (v) => v.leftReason },
  leftOut: {
    column: 'left_out',
    is: 'yes_no',
    unit: '',
    definition: 'somebody left it out of comparisons, with a reason',
    value: (v) => v.marks.leftOut !== null,
  },
  marked: { column: 'marked', is: 'text', unit: '', definition: 'business or private, where somebody said so', value: (v) => v.marks.as },
  arrivalDay: {
    column: 'arrival_day',
    is: 'text',
    unit: '',
    definition: 'the day of the arrival, where one stood',
    value: (v) => (v.pulledInAt === null ? null : localDay(v.pulledInAt, v.zone)),
  },
  faultCount: { column: 'faults', is: 'number', unit: 'count', definition: 'faults and refusals noted', value: (v) => v.faults.length },
  faultCodes: {
    column: 'fault_codes',
    is: 'text',
    unit: '',
    definition: 'their kinds',
    value: (v) => cut([...new Set(v.faults.map((f) => f.code))].join(','), 500),
  },
  flags: { column: 'flags', is: 'number', unit: 'count', definition: 'what looks wrong about it, worth a second look', value: (v) => visitFlags(v).length },
  deliveredKWh: {
    column: 'delivered_kwh',
    is: 'decimal',
    unit: 'kWh',
    definition: 'energy delivered, where all of it is known',
    value: (v) => {
      const whole = wholeEnergy(v.delivered);
      return whole.known ? whole.value : null;
    },
  },
  deliveredLeast: {
    column: 'delivered_least',
    is: 'decimal',
    unit: 'kWh',
    definition: 'at least so much, read before the charge was over',
    value: (v) => (v.delivered.known && v.delivered.atLeast ? v.delivered.value : null),
  },
  paid: {
    column: 'paid',
    is: 'decimal',
    unit: 'money',
    definition: 'everything paid, refunds taken off',
    value: (v) => (v.paid.known ? v.paid.value.amount : null),
  },
  currency: { column: 'currency', is: 'text', unit: '', definition: 'currency of what was paid', value: (v) => (v.paid.known ? v.paid.value.currency : null) },
  handshake_s: { column: 'handshake_s', is: 'number', unit: 's', definition: 'handshake of the attempt that got power', value: (v) => secondsOf(handshake(v)) },
  handshakeBound: {
    column: 'handshake_bound',
    is: 'text',
    unit: '',
    definition: 'exact, or at most so much',
    value: (v) => {
      const h = handshake(v);
      return h?.known ? h.bound : null;
    },
  },
  lost_s: { column: 'lost_s', is: 'number', unit: 's', definition: 'time lost to faults', value: (v) => secondsOf(v.times.lost) },
} as const satisfies Record<string, Figure<Visit>>;

export type VisitFigure = keyof typeof VISIT_FIGURES;
