import type { RecordFields } from '../records/record-schema';
import type { Maybe } from '../units/known';
import type { TimeName } from '../visit/attempt-times';
import { meansOf, TIME_RULES } from '../visit/attempt-times';
import { sessionEnergy } from '../visit/delivered';
import type { Visit } from '../visit/derive';
import type { Precision } from '../visit/event';
import type { Timing } from '../visit/timing';
import type { CsvColumn, CsvValue } from './csv-out';

/** What ids are called, for people who read a sheet. */
export type SheetNames = {
  site: (id: string | null) => string | null;
  network: (siteId: string | null) => string | null;
  stall: (id: string | null) => string | null;
  car: (id: string | null) => string | null;
  person: (id: string | null) => string | null;
};
export type Sheet = { columns: CsvColumn[]; rows: (v: Visit, names: SheetNames) => CsvValue[][] };

const text = (heading: string): CsvColumn => ({ heading, type: 'text', reason: false });
const number = (heading: string, reason = false): CsvColumn => ({ heading, type: 'number', reason });
const decimal = (heading: string, reason = false): CsvColumn => ({ heading, type: 'decimal', reason });
const instant = (heading: string): CsvColumn => ({ heading, type: 'instant', reason: false });
const yesNo = (heading: string): CsvColumn => ({ heading, type: 'yesno', reason: false });

const at = (t: number | null, zone: string, precision: Precision = 'ms'): CsvValue => (t === null ? null : { at: t, zone, precision });
/** How well the time of an arrival or a departure is known. */
const precisionOf = (v: Visit, kind: 'pulled_in' | 'pulled_out', t: number | null): Precision =>
  v.line.find((e) => e.kind === kind && e.t === t)?.precision ?? 'ms';
const maybe = <T>(m: Maybe<T>, value: (v: T) => CsvValue): CsvValue => (m.known ? value(m.value) : { unknown: m.why });
/** Seconds of a time; a bound is not the time itself. */
const seconds = (t: Timing): CsvValue =>
  !t.known
    ? { unknown: t.why }
    : t.bound === 'exact'
      ? Math.round(t.s * 1000) / 1000
      : { unknown: `${t.bound === 'at_most' ? 'at most' : 'at least'} ${t.s.toFixed(1)} s` };

/** Of the whole visit: what such a one holds counts nowhere; joined into another it stands there once more. */
const WITHDRAWN = yesNo('withdrawn');
const VISITS: Sheet = {
  columns: [
    text('visit'),
    instant('pulled in'),
    instant('pulled out'),
    text('site'),
    text('network'),
    text('car'),
    text('driver'),
    number('attempts'),
    number('failed'),
    text('first try'),
    number('handshake (s)', true),
    number('charging (s)', true),
    number('lost to faults (s)', true),
    decimal('delivered (kWh)', true),
    number('average (kW)', true),
    number('battery from (%)'),
    number('battery to (%)'),
    decimal('paid', true),
    text('currency'),
    text('left'),
    text('counts as'),
    WITHDRAWN,
  ],
  rows: (v, n) => {
    const session = v.attempts.find((a) => a.proof);
    const whole = v.delivered.known
      ? v.delivered.atLeast
        ? { unknown: `at least ${v.delivered.value} kWh` }
        : v.delivered.value
      : { unknown: v.delivered.why };
    return [
      [
        v.id,
        at(v.pulledInAt, v.zone, precisionOf(v, 'pulled_in', v.pulledInAt)),
        at(v.pulledOutAt, v.zone, precisionOf(v, 'pulled_out', v.pulledOutAt)),
        n.site(v.siteId),
        n.network(v.siteId),
        n.car(v.carId),
        n.person(v.driverId),
        v.attempts.length,
        v.attempts.filter((a) => a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up').length,
        v.firstTry.answer,
        session ? seconds(session.times.handshake) : { unknown: 'no power was seen' },
        seconds(v.times.charging),
        seconds(v.times.lost),
        whole,
        maybe(v.average, (kW) => Math.round(kW * 1000) / 1000),
        v.socFrom,
        v.socTo,
        maybe(v.paid, (p) => p.amount),
        v.paid.known ? v.paid.value.currency : null,
        v.leftReason,
        v.marks.leftOut ? 'left out' : v.marks.as,
        v.withdrawn,
      ],
    ];
  },
};

const TIMES = Object.keys(TIME_RULES) as TimeName[];
const ATTEMPTS: Sheet = {
  columns: [
    text('visit'),
    number('attempt'),
    instant('opened'),
    text('site'),
    text('stall'),
    text('means'),
    text('outcome'),
    text('why'),
    text('faults'),
    ...TIMES.map((name) => number(`${TIME_RULES[name].label.toLowerCase()} (s)`, true)),
    decimal('delivered (kWh)', true),
    WITHDRAWN,
  ],
  rows: (v, n) =>
    v.attempts.map((a) => {
      const energy = a.proof ? sessionEnergy(a, v.billed) : undefined;
      return [
        v.id,
        a.n,
        at(a.opened.t, v.zone, a.opened.precision),
        n.site(v.siteId),
        n.stall(a.stallId),
        meansOf(a)?.meansKind ?? null,
        a.outcome.kind,
        'reason' in a.outcome ? a.outcome.reason : null,
        a.faults.map((f) => f.code).join(' '),
        ...TIMES.map((name) => seconds(a.times[name])),
        !a.proof
          ? { unknown: 'no power was seen' }
          : !energy
            ? { unknown: 'no kWh was read from the stall or the bill' }
            : energy.atLeast
              ? { unknown: `at least ${energy.value} kWh` }
              : energy.value,
        v.withdrawn,
      ];
    }),
};

const EVENTS: Sheet = {
  columns: [
    text('visit'),
    text('event'),
    instant('at'),
    text('kind'),
    number('sequence'),
    text('device'),
    text('role'),
    text('origin'),
    text('person'),
    text('payload (JSON)'),
    WITHDRAWN,
  ],
  rows: (v, n) =>
    v.line.map((e) => [
      v.id,
      e.id,
      at(e.t, v.zone, e.precision),
      e.kind,
      e.seq,
      e.deviceId,
      e.role,
      e.origin,
      n.person(e.personId),
      JSON.stringify(e.payload),
      v.withdrawn,
    ]),
};

const READINGS: Sheet = {
  columns: [
    text('visit'),
    number('attempt'),
    instant('at'),
    number('after power (s)'),
    text('screen'),
    number('battery (%)'),
    number('power (kW)'),
    decimal('energy (kWh)'),
    decimal('cost'),
    text('currency'),
    number('voltage (V)'),
    number('current (A)'),
    WITHDRAWN,
  ],
  rows: (v) =>
    v.attempts.flatMap((a) =>
      a.readings.map((r) => [
        v.id,
        a.n,
        at(r.mark.t, v.zone, r.mark.precision),
        a.proof && r.mark.precision !== 'day' ? (r.mark.t - a.proof.t) / 1000 : null,
        r.screen,
        r.socPct ?? null,
        r.kW ?? null,
        r.kWh ?? null,
        r.cost ?? null,
        r.currency ?? null,
        r.V ?? null,
        r.A ?? null,
        v.withdrawn,
      ]),
    ),
};

const BILLS: Sheet = {
  columns: [
    text('visit'),
    text('bill'),
    instant('noted'),
    text('site'),
    decimal('amount'),
    text('currency'),
    decimal('billed (kWh)'),
    text('state'),
    yesNo('counted'),
    text('further (JSON)'),
    WITHDRAWN,
  ],
  rows: (v, n) => {
    const again = new Set(v.billsAgain.map((a) => a.bill.id));
    return v.line.flatMap((b) => {
      if (b.kind !== 'bill') return [];
      const { amount, currency, kWh, state, ...further } = b.payload;
      const figures = [amount, currency, kWh ?? null, state, !v.withdrawn && !again.has(b.id), JSON.stringify(further), v.withdrawn];
      return [[v.id, b.id, at(b.t, v.zone, b.precision), n.site(v.siteId), ...figures]];
    });
  },
};

/** What is taken along of visits, a sheet each. */
export const VISIT_SHEETS = { visits: VISITS, attempts: ATTEMPTS, events: EVENTS, readings: READINGS, bills: BILLS } as const;
export type VisitSheetName = keyof typeof VISIT_SHEETS;

type Rec<F> = { id: string; archived: boolean; fields: F };
export const SITE_COLUMNS: CsvColumn[] = [
  text('site'),
  text('name'),
  text('network'),
  text('zone'),
  number('latitude (°)'),
  number('longitude (°)'),
  number('max stay (min)'),
  number('overstay after (min)'),
  number('idle grace (min)'),
  text('stalls'),
  text('note'),
  yesNo('put away'),
];
export const siteRow = (s: Rec<RecordFields<'site'>>, network: string | null, stalls: string): CsvValue[] => [
  s.id,
  s.fields.name,
  network,
  s.fields.zone,
  s.fields.latitude,
  s.fields.longitude,
  s.fields.maxStay_min,
  s.fields.overstayAfter_min,
  s.fields.idleGrace_min,
  stalls,
  s.fields.note,
  s.archived,
];
export const TARIFF_COLUMNS: CsvColumn[] = [
  text('tariff'),
  text('network'),
  text('sites'),
  decimal('price per kWh'),
  decimal('start fee'),
  text('currency'),
  text('from'),
  text('until'),
  text('for'),
  text('OCPI tariff (JSON)'),
  text('beyond OCPI (JSON)'),
  yesNo('put away'),
];
export const tariffRow = (t: Rec<RecordFields<'tariff'>>, names: { network: string | null; sites: string; payer: string }): CsvValue[] => [
  t.id,
  names.network,
  names.sites,
  t.fields.perKWh,
  t.fields.startFee,
  t.fields.currency,
  t.fields.validFrom,
  t.fields.validUntil,
  names.payer,
  t.fields.tariff ? JSON.stringify(t.fields.tariff) : null,
  t.fields.extra ? JSON.stringify(t.fields.extra) : null,
  t.archived,
];
