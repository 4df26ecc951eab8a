import * as z from '@/core/units/schema';
import { SIDES } from '../faults/fault-list';
import { MEANS_KIND_NAMES } from '../records/means-kind';
import { privateNumber } from '../records/private-number';
import { ID_PATTERN, NOT_AN_ID } from '../units/id';
import { FIRST_INSTANT, LAST_INSTANT } from '../units/instant';
import { DECIMAL, MOST_AMOUNT, MOST_PRICE } from '../units/money';
import { firstProblem, parsed } from '../units/own-words';
import { isFieldPath } from './set-fields';

/**
 * Payload schemas by event kind: the schema is the type. Shapes and words are those of the record's contract
 * (docs/definitions.md). Money and kWh are decimal strings; every other figure is a number with its unit in the name.
 * Objects are loose: a field this version does not know is kept, never dropped.
 */

export const uuid = () => z.string().check(z.regex(ID_PATTERN, NOT_AN_ID));

/** A number within bounds, with a message that a driver understands. */
const between = (lo: number, hi: number, unit: string) =>
  z.number('must be a number').check(z.minimum(lo, `must be at least ${lo} ${unit}`), z.maximum(hi, `must be at most ${hi} ${unit}`));
/** A decimal string within bounds. */
const decimal = (hi: number, unit: string) =>
  z.string('must be a decimal number in quotes').check(
    // Before its form: of what is too large nobody needs to hear how many figures it has.
    z.refine((s) => !(Number(s) > hi), `must be at most ${hi} ${unit}`.trim()),
    z.regex(DECIMAL, 'must be a decimal number'),
    z.refine((s) => !s.startsWith('-') || Number(s) === 0, 'must not be negative'),
  );
const text = (max = 500) =>
  z.string().check(
    z.maxLength(max, `must be at most ${max} characters`),
    z.superRefine((s, ctx) => {
      const why = privateNumber(s);
      if (why) ctx.addIssue({ code: 'custom', message: why, input: s });
    }),
  );
const opt = z.optional;
const socPct = () => between(0, 100, '%');
const kW = () => between(0, 4000, 'kW');
const currency = () => z.string().check(z.regex(/^[A-Z]{3}$/, 'must be a currency code of three letters'));
const count = () => z.int().check(z.minimum(0, 'must not be negative'), z.maximum(999));
const seconds = () => between(0, 48 * 3600, 's');
const screen = () => z.enum(['stall', 'car']);
const meansKind = () => z.enum(MEANS_KIND_NAMES);
/** An instant in UTC ms that a calendar can hold. */
const instant = () => z.int('must be a time in UTC milliseconds').check(z.minimum(FIRST_INSTANT, 'is before 1990'), z.maximum(LAST_INSTANT, 'is after 2100'));
const none = () => z.looseObject({});
/** A code of a list, such as a fault's: a newer list may have others, none has spaces, commas or letters beyond ASCII. */
const code = () => z.string().check(z.regex(/^[a-z0-9][a-z0-9_]{0,39}$/, 'must be a short word of small letters, figures and _'));
const takenAt = () => z.looseObject({ latitude: between(-90, 90, '°'), longitude: between(-180, 180, '°') });
/** Why something is done that others will ask about. */
const reason = () => text(200).check(z.refine((s) => s.trim() !== '', 'says why'));
/** A picture by its content. */
const photo = () => z.string().check(z.regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hex'));

const means = () =>
  z.looseObject({
    meansKind: meansKind(),
    meansId: opt(uuid()),
    holdAmount: opt(decimal(MOST_AMOUNT, '')),
    currency: opt(currency()),
    fault: opt(code()),
  });

export const PAYLOADS = {
  pulled_in: z.looseObject({
    // Somewhere new has no record yet: where it is, as far as that may be noted, and its name later.
    siteId: opt(uuid()),
    position: opt(z.looseObject({ latitude: between(-90, 90, 'degrees'), longitude: between(-180, 180, 'degrees') })),
    carId: opt(uuid()),
    seen: opt(z.looseObject({ free: opt(count()), total: opt(count()), outOfOrder: opt(count()) })),
    odometerKm: opt(between(0, 5_000_000, 'km')),
    socPct: opt(socPct()),
    airC: opt(between(-60, 70, '°C')),
    preconditioned: opt(z.boolean()),
    drivenBy: opt(uuid()),
    /** The code of the visit that another phone records, of which this is a recording too: the two become one where both are known. */
    joins: opt(z.string().check(z.regex(/^[0-9A-F]{8}$/, 'must be the code of a visit'))),
  }),
  survey: z.looseObject({
    stalls: z
      .array(
        z.looseObject({
          stallId: uuid(),
          state: z.enum(['free', 'charging', 'idle_car', 'blocked', 'dark', 'closed', 'derated', 'not_looked']),
          kW: opt(kW()),
        }),
      )
      .check(z.maxLength(100)),
  }),
  queue_joined: none(),
  stall_free: none(),
  stall_chosen: z.looseObject({ stallId: uuid(), connectorId: opt(z.string().check(z.maxLength(40))) }),
  stall_named: z.looseObject({ text: text(80) }),
  first_act: z.looseObject({ what: z.enum(['handle', 'app', 'kiosk', 'again']) }),
  adapter_fitted: z.looseObject({ adapterId: opt(uuid()) }),
  plugged: z.looseObject({ connectorId: opt(z.string().check(z.maxLength(40))) }),
  means_shown: means(),
  means_accepted: means(),
  means_refused: means(),
  price_shown: z.looseObject({ where: text(80), text: text(200), perKWh: opt(decimal(MOST_PRICE, '')), currency: opt(currency()), taxIn: opt(z.boolean()) }),
  claimed: z.looseObject({ by: z.enum(['beep', 'light', 'screen', 'app']) }),
  power_seen: z.looseObject({ screen: screen(), mark: z.enum(['A', 'kW', 'kWh']), value: opt(between(0, 4000, '')), late: opt(z.boolean()) }),
  reading: z.looseObject({
    screen: screen(),
    socPct: opt(socPct()),
    kW: opt(kW()),
    kWh: opt(decimal(2000, 'kWh')),
    meterStart: opt(decimal(99_999_999, 'kWh')),
    meterEnd: opt(decimal(99_999_999, 'kWh')),
    cost: opt(decimal(MOST_AMOUNT, '')),
    currency: opt(currency()),
    V: opt(between(0, 1500, 'V')),
    A: opt(between(0, 3000, 'A')),
    elapsed_s: opt(seconds()),
    batteryC: opt(between(-60, 100, '°C')),
  }),
  change: z.looseObject({
    what: z.enum(['neighbour_in', 'neighbour_out', 'climate_on', 'climate_off', 'fans', 'derate', 'paused', 'resumed', 'cold', 'rain', 'other']),
    value: opt(z.number()),
    text: opt(text()),
  }),
  fault: z.looseObject({
    code: code(),
    side: z.enum(SIDES),
    text: opt(text()),
    photo: opt(photo()),
    takenAt: opt(takenAt()),
  }),
  stop_asked: z.looseObject({ by: opt(z.enum(['button', 'card', 'app', 'car'])) }),
  power_gone: z.looseObject({
    why: opt(
      z.enum([
        'asked',
        'car_target',
        'site_cap',
        'time_limit',
        'hold_used_up',
        'load_management',
        'fault',
        'power_cut',
        'emergency',
        'unplugged_by_other',
        'unknown',
      ]),
    ),
    notBefore: opt(instant()),
  }),
  unlocked: none(),
  stuck: z.looseObject({ end: z.enum(['car', 'post']) }),
  unplugged: none(),
  help_called: none(),
  help_answered: none(),
  help_ended: z.looseObject({ result: opt(z.enum(['reset', 'remote_start', 'refund_promised', 'none'])) }),
  danger_cleared: z.looseObject({ stallId: opt(uuid()), reason: reason() }),
  reserved: none(),
  released: none(),
  pulled_out: z.looseObject({ reason: z.enum(['enough', 'gave_up', 'queue', 'price', 'unsafe', 'closed', 'called_away']), continuesVisit: opt(uuid()) }),
  bill: z.looseObject({
    sessions: z.array(uuid()).check(z.maxLength(50)),
    /** A parking ticket is a bill of its own, often to somebody else: no price of a kWh is held against it. */
    what: opt(z.enum(['charging', 'parking'])),
    payee: opt(text(80)),
    meansKind: opt(meansKind()),
    meansId: opt(uuid()),
    amount: decimal(MOST_AMOUNT, ''),
    currency: currency(),
    kWh: opt(decimal(2000, 'kWh')),
    minutes: opt(between(0, 10_000, 'min')),
    tax: opt(decimal(MOST_AMOUNT, '')),
    /** What it came to on the account, in the household's own currency. */
    fx: opt(decimal(MOST_AMOUNT, '')),
    ref: opt(text(80)),
    /** Brought in for sessions that have a bill, it tells that one again; so it is a bill of its own. */
    counts: opt(z.enum(['as_well'])),
    state: z.enum(['charged', 'pending', 'checked', 'queried', 'settled', 'refunded']),
  }),
  receipt: z.looseObject({ sha256: photo(), takenAt: opt(takenAt()) }),
  // The hold is named by the event that told of it.
  hold_released: z.looseObject({ hold: uuid(), on: z.iso.date('must be a date such as 2025-10-17') }),
  rating: z.looseObject({ stars: opt(between(1, 5, '')) }),
  note: z.looseObject({ text: text(2000), photo: opt(photo()), takenAt: opt(takenAt()) }),
  mark: z
    .looseObject({ as: z.enum(['business', 'private', 'left_out']), reason: opt(text(200)) })
    .check(z.refine((p) => p.as !== 'left_out' || (p.reason ?? '').trim() !== '', { message: 'says why the visit is left out', path: ['reason'] })),
  trial_round: z.looseObject({ trialId: uuid(), round: z.int().check(z.minimum(1), z.maximum(9999)), side: opt(text(80)) }),
  trial_voided: z.looseObject({ trialId: uuid(), round: opt(count()), side: opt(text(80)), run: opt(uuid()), reason: reason() }),
  figure_given: z.looseObject({
    figure: z.string().check(z.maxLength(40)),
    seconds: seconds(),
    plusMinus_s: opt(seconds()),
    startMark: z.string().check(z.maxLength(40)),
    endMark: z.string().check(z.maxLength(40)),
    observer: opt(text(80)),
    used: opt(z.boolean()),
  }),
  correction: z.looseObject({
    target: uuid(),
    at: opt(instant()),
    set: opt(
      z.record(
        z.string().check(z.maxLength(40), z.refine(isFieldPath, 'is not a field that can be corrected')),
        z.union([z.string().check(z.maxLength(2000)), z.number(), z.boolean(), z.array(z.string().check(z.maxLength(40))).check(z.maxLength(50)), z.null()]),
      ),
    ),
  }),
  withdrawal: z.looseObject({ target: uuid() }),
};

/** Every kind of event this version knows. What each is called and does stands in kinds/. */
export type Kind = keyof typeof PAYLOADS;
export type Payload<K extends Kind> = z.infer<(typeof PAYLOADS)[K]>;

/** Says what is wrong with a payload; `null` when nothing is. Given to the derivation, so that a phone need not carry the schemas. */
export type PayloadCheck = (kind: Kind, payload: unknown) => { path: string; reason: string } | null;

/** What is wrong with a payload: the path of the field and the reason; `null` when nothing is. */
export const payloadProblem: PayloadCheck = (kind, payload) => {
  const r = parsed(PAYLOADS[kind], payload);
  return r.success ? null : firstProblem(r.error, 'payload');
};
