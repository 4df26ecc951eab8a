import Big from 'big.js';
import { privateNumber } from '../records/private-number';
import { firstLetters } from '../units/first-letters';
import { localInstant } from '../units/local-time';
import { dayAfter, localDay } from '../units/zoned';
import { sessionEnergy } from '../visit/delivered';
import type { Visit } from '../visit/derive';
import { type Payload, payloadProblem } from '../visit/payloads';
import { chosenStall, NO_ATTEMPT } from '../visit/receipt-alone';
import { jsonText } from './json-text';
import { NOT_KEPT } from './kept-json';
import type { BilledItem, RecordedAttempt } from './match-sessions';
import type { BillIn } from './ocpi-cdrs';
import type { JsonObject } from './strict-json';

/**
 * The attempts of a visit, as something billed may be matched to them. A charge without one is there, too: typed in from its receipt, it is the visit's.
 * @param site its name @param stallName by id
 */
export function recordedAttempts(v: Visit, site: string, stallName: (id: string | null) => string | null): RecordedAttempt[] {
  const of = { visitId: v.id, site, zone: v.zone, ...stayOf(v) };
  if (v.attempts.length === 0 && v.ended === 'charge') {
    const kWh = v.delivered.known && !v.delivered.atLeast ? v.delivered.value : null;
    return [{ ...of, n: NO_ATTEMPT, stall: stallName(chosenStall(v)), start: null, kWh, power: true }];
  }
  return v.attempts.map((a) => {
    const energy = a.proof ? sessionEnergy(a, []) : undefined;
    const begun = a.proof ?? a.opened;
    return {
      ...of,
      n: a.n,
      stall: stallName(a.stallId),
      start: begun.precision === 'day' ? null : begun.t,
      kWh: energy && !energy.atLeast ? energy.value : null,
      power: a.proof !== undefined,
    };
  });
}

/** From when to when somebody stood there; all of the day where no more is known, and no end where that is known to the day. */
function stayOf(v: Visit): Pick<RecordedAttempt, 'pulledIn' | 'pulledOut'> {
  const pulledIn = v.pulledInAt ?? v.line[0]?.t ?? v.lastEventAt;
  const left = v.line.find((e) => e.kind === 'pulled_out' && e.t === v.pulledOutAt);
  if (!v.dayOnly) return { pulledIn, pulledOut: left?.precision === 'day' ? null : v.pulledOutAt };
  const day = localDay(pulledIn, v.zone);
  const [from, to] = [localInstant(day, '00:00', v.zone), localInstant(dayAfter(day), '00:00', v.zone)];
  return { pulledIn: from ?? pulledIn, pulledOut: to ?? pulledIn };
}

/** Bills as items to match. @param placeOf where one was, by the names that places have here */
export const billedItems = (bills: readonly BillIn[], placeOf: (b: BillIn) => { site: string; stall: string | null }): BilledItem[] =>
  bills.map((b) => ({ id: b.id, ...placeOf(b), start: b.start, dayOnly: false, kWh: b.kWh, credits: b.credits }));

/** What of a CDR stands beside the bill's own fields: when the network says it was, and the record itself as a JSON text, signed values and unknown members too. */
type CdrBeside = { cdr: { start: string; end: string; evse: string; minutes: number; taxIn: boolean; credits?: string; signed?: string; document?: string } };
/** UTF-8 bytes of a record that are kept with its bill; an event holds 64 kB in all. What is longer is kept by its figures alone. */
export const MOST_DOCUMENT = 40_000;
const bytesOf = (text: string): number => new TextEncoder().encode(JSON.stringify(text)).length;
/** Letters of what a network calls something that are noted beside a bill: the record has it whole. */
const MOST_NOTED = 200;
const noted = (text: string): string => (privateNumber(text) === null ? firstLetters(text, MOST_NOTED) : NOT_KEPT);
/** A figure with the decimals that the record has: 12.704918032786885 is a price without its tax, 15.342000000000001 what a program makes of 15.342. */
const kept = (figure: Big): string => figure.round(6, Big.roundHalfUp).toFixed();
const iso = (ms: number) => new Date(ms).toISOString();

/** By what a bill is known to the network that made it. Of an id that may be a card's number as well (one in ten of sixteen figures may) stands whose it is, its end, and of when. */
export function cdrRef({ id, start }: Pick<BillIn, 'id' | 'start'>): string {
  if (privateNumber(id) === null) return firstLetters(id, 80);
  const [country, party] = id.split('*');
  return `${firstLetters(`${country}*${party}`, 20)}* … ${[...id].slice(-4).join('')} of ${iso(start)}`;
}

/** A bill as it is kept with a visit. A negative amount takes money back: a bill of state refunded without its sign. @param session the attempt it is for @param record the whole of it */
export function billPayload(b: BillIn, session: string | null, importId: string, record?: JsonObject): Payload<'bill'> & CdrBeside & { import: string } {
  const back = new Big(b.amount).lt(0);
  const document = record ? jsonText(record) : null;
  return {
    sessions: session ? [session] : [],
    amount: kept(new Big(b.amount).abs()),
    currency: b.currency,
    // A credit takes money back, never energy.
    ...(back ? {} : { kWh: kept(new Big(b.kWh)) }),
    minutes: Math.min(10_000, Math.round(b.minutes * 100) / 100),
    ref: cdrRef(b),
    state: back ? 'refunded' : 'charged',
    import: importId,
    cdr: {
      start: iso(b.start),
      end: iso(b.end),
      evse: noted(b.evse),
      minutes: b.minutes,
      taxIn: b.taxIn,
      ...(b.credits ? { credits: noted(b.credits) } : {}),
      ...(b.signed ? { signed: noted(b.signed.method) } : {}),
      ...(document === null || bytesOf(document) > MOST_DOCUMENT ? {} : { document }),
    },
  };
}

/** Why a bill cannot be kept as the record has bills, its field and the reason; `null`: it can. */
export function billProblem(b: BillIn): string | null {
  const problem = payloadProblem('bill', billPayload(b, null, ''));
  return problem && `${problem.path.replace(/^payload\./, '')} ${problem.reason}`;
}

/** The network's record that came with a bill, as text; `null`: none did. */
export function documentOf(payload: Payload<'bill'>): string | null {
  const { cdr } = payload as { cdr?: unknown };
  const document = typeof cdr === 'object' && cdr !== null ? (cdr as { document?: unknown }).document : null;
  return typeof document === 'string' ? document : null;
}
