import { localDay, localHour } from '../units/zoned';
import { isNoted } from '../visit/attempts/attempt';
import { wholeEnergy } from '../visit/delivered';
import type { Visit } from '../visit/derive';
import { baysOnArrival, priceBeforeStart, weatherNoted } from '../visit/on-arrival';
import { openMoney } from '../visit/open-money';
import type { Timing } from '../visit/timing';
import { visitFlags } from '../visit/visit-flags';
import type { Figure } from './figure';

/** A time that is known, and no more than a bound where the figure says so beside it. */
const secondsOf = (t: Timing | undefined): number | null => (t?.known ? t.s : null);
/** A text that is counted by the kilometre must still fit its row. */
const cut = (text: string, max: number) => (text.length <= max ? text : text.slice(0, max));
/** Of a list as many whole entries as fit. */
const cutList = (list: readonly string[], max: number): string => {
  const text = cut(list.join(','), max + 1);
  return text.length <= max ? text : text.slice(0, Math.max(0, text.lastIndexOf(',')));
};
/** Known to be so, known not to be, or not known. */
export const yesNo = (v: boolean | null): 'yes' | 'no' | null => (v === null ? null : v ? 'yes' : 'no');
const handshake = (v: Visit) => v.attempts.find((a) => a.proof)?.times.handshake;

/** The trial whose rounds a visit holds: the first that is named. A round that was voided is one still. */
const trialOf = (v: Visit): string | null => {
  const round = v.line.find((e) => e.kind === 'trial_round');
  return round?.kind === 'trial_round' ? round.payload.trialId : null;
};

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
    definition: 'somebody left it out of comparisons, with a reason, or it holds rounds of a trial',
    value: (v) => v.marks.leftOut !== null || trialOf(v) !== null,
  },
  trialId: { column: 'trial_id', is: 'id', unit: '', definition: 'the trial of which it holds rounds', value: (v) => trialOf(v) },
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
  faultMarks: {
    column: 'fault_marks',
    is: 'text',
    unit: '',
    definition: 'each of them with its side, as code:side',
    value: (v) =>
      cutList(
        v.faults.map((f) => `${f.code}:${f.side}`),
        1000,
      ),
  },
  noted: {
    column: 'noted',
    is: 'yes_no',
    unit: '',
    definition: 'a start was recorded, not only its bill',
    value: (v) => v.attempts.some(isNoted),
  },
  hour: {
    column: 'arrival_hour',
    is: 'number',
    unit: '',
    definition: 'hour of the arrival by the clock of the place',
    value: (v) => (v.pulledInAt === null || v.dayOnly ? null : localHour(v.pulledInAt, v.zone)),
  },
  weather: { column: 'weather', is: 'text', unit: '', definition: 'weather that was noted', value: weatherNoted },
  baysSeen: { column: 'bays_seen', is: 'number', unit: 'count', definition: 'bays looked at on arrival', value: (v) => baysOnArrival(v)?.seen ?? null },
  baysOut: {
    column: 'bays_out',
    is: 'number',
    unit: 'count',
    definition: 'of the bays looked at, those out of order',
    value: (v) => baysOnArrival(v)?.outOfOrder ?? null,
  },
  priceBefore: {
    column: 'price_before',
    is: 'text',
    unit: '',
    definition: 'whether the price could be seen before the start, where somebody noted it',
    value: (v) => yesNo(priceBeforeStart(v)),
  },
  queue_s: { column: 'queue_s', is: 'number', unit: 's', definition: 'time in the queue', value: (v) => secondsOf(v.times.queue) },
  helpAnswered_s: {
    column: 'help_answered_s',
    is: 'number',
    unit: 's',
    definition: 'until the helpline answered, calls added up',
    value: (v) => secondsOf(v.times.helpAnswered),
  },
  flags: {
    column: 'flags',
    is: 'number',
    unit: 'count',
    definition: 'what looks wrong about it, worth a second look',
    inputs: ['stall.plate', 'stall.outlets', 'car.usableKWh'],
    value: (v, where) => visitFlags(v).length + (where.doubts?.(v) ?? 0),
  },
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
  billCheck: {
    column: 'bill_check',
    is: 'text',
    unit: '',
    definition: 'whether the bill is that of the price on file on its day, where it can be held against one',
    inputs: ['tariff.says', 'plan.holds', 'means.providerId'],
    value: (v, where) => where.bill?.(v) ?? null,
  },
  openMoney: {
    column: 'open_money',
    is: 'text',
    unit: '',
    definition: 'what of its money waits: a bill to come, one that is pending or queried, one that was told otherwise, a hold',
    value: (v) => openMoney(v).join(',') || null,
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
  site: { column: 'site_id', is: 'id', unit: '', definition: 'where it was', value: (v) => v.siteId },
  charging_s: { column: 'charging_s', is: 'number', unit: 's', definition: 'time charging, of all its sessions', value: (v) => secondsOf(v.times.charging) },
  lost_s: { column: 'lost_s', is: 'number', unit: 's', definition: 'time lost to faults', value: (v) => secondsOf(v.times.lost) },
} as const satisfies Record<string, Figure<Visit>>;

export type VisitFigure = keyof typeof VISIT_FIGURES;
