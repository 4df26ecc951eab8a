import Big from 'big.js';
import type { Side } from '../faults/fault-list';
import { known, type Maybe, type Unknown, unknown } from '../units/known';
import { type AttemptTimes, attemptTimes, TIME_RULES, type TimeName } from './attempt-times';
import type { Attempt, Proof } from './attempts/attempt';
import { cutAttempts } from './attempts/cut-attempts';
import { type Billed, billedOf, paidOf } from './billed';
import { type Danger, dangersOf } from './dangers';
import { LEFT_OPEN_MS } from './definitions-version';
import { averageKW, deliveredKWh, type Energy, peakKW, wholeEnergy } from './delivered';
import { type Effective, effectiveEvents } from './effective';
import type { EventOf, StoredEvent } from './event';
import { type FirstTry, firstTry } from './first-try';
import { joinedInto } from './join-visits';
import type { PlacedOf } from './kinds/kind';
import { isAfterwards } from './kinds/registry';
import type { PayloadCheck } from './payloads';
import { layTape, type Segment } from './tape';
import { placeEvents } from './timeline/place-events';
import type { Placed } from './timeline/placed';
import { type PlacedBill, type ToldAgain, toldBills } from './told-bills';
import { type VisitTimes, visitTimes } from './visit-times';

export type TimedAttempt = Attempt & { times: AttemptTimes };

/** Everything one visit's events say. */
export type Visit = {
  id: string;
  withdrawn: boolean;
  visitWithdrawals: string[];
  /** The recording that this one was joined into. */
  joinedInto: string | null;
  newer: boolean;
  history: Effective['history'];
  takenBack: Effective['withdrawn'];
  aside: Effective['aside'];
  /** Events in order with their times, bookkeeping kinds taken out. */
  line: Placed[];
  siteId: string | null;
  carId: string | null;
  /** The person who drove: whom the arrival names, else who recorded it. */
  driverId: string | null;
  zone: string;
  pulledInAt: number | null;
  /** Of the arrival only the day is known: `pulledInAt` stands for order, and is no time to show. */
  dayOnly: boolean;
  pulledOutAt: number | null;
  lastEventAt: number;
  leftReason: string | null;
  /** The visit at another site that belongs to the same stop. */
  linkedVisitId: string | null;
  attempts: TimedAttempt[];
  times: VisitTimes;
  tape: Segment[];
  firstTry: FirstTry;
  /** `charge`: some session; `none`: over without one; `open`: not over, or power not recorded. */
  ended: 'charge' | 'none' | 'open';
  faults: { code: string; side: Side; attempt: number | null; t: number; ends: boolean }[];
  delivered: Energy | Unknown;
  average: Maybe<number>;
  peak: ReturnType<typeof peakKW>;
  socFrom: number | null;
  socTo: number | null;
  bills: PlacedBill[];
  /** What tells one of them again: paid once. */
  billsAgain: ToldAgain[];
  billed: Billed[];
  /** Figures read from a stopwatch or remembered, beside the derived ones. */
  given: EventOf<'figure_given'>['payload'][];
  paid: Maybe<{ amount: string; currency: string }>;
  allIn: Maybe<{ perKWh: string; currency: string }>;
  /** What somebody said the visit counts as; the last word of each counts. */
  marks: { as: 'business' | 'private' | null; leftOut: { reason: string } | null };
  /** Reported at stalls and not cleared since. */
  dangers: Danger[];
  /** Clock jumps the page should tell of, seconds. */
  jumps_s: number[];
};

/**
 * Derives a visit from its events, in any order and with any duplicates.
 * Pure: the same set of events gives the same visit.
 * @param events of one visit; those of other visits are ignored
 * @param check what a corrected payload is held to: `payloadProblem`, except where a phone knows there are no corrections of figures
 */
export function deriveVisit(visitId: string, events: readonly StoredEvent[], check: PayloadCheck): Visit {
  const own = events.filter((e) => e.visitId === visitId);
  const effective = effectiveEvents(own, visitId, check);
  const line = placeEvents(effective.events);
  const given = line.flatMap((e) => (e.kind === 'figure_given' ? [e.payload] : []));
  const attempts = withGiven(
    cutAttempts(line).map((a): TimedAttempt => ({ ...a, times: attemptTimes(a) })),
    given,
  );
  const times = visitTimes(
    line,
    attempts,
    attempts.map((a) => a.times.charging),
  );
  const arrivals = line.filter((e): e is PlacedOf<'pulled_in'> => e.kind === 'pulled_in');
  const pulledIn = arrivals.find((e) => !e.onlySeen) ?? arrivals[0];
  const pulledOut = line.find((e): e is PlacedOf<'pulled_out'> => e.kind === 'pulled_out' && !e.onlySeen);
  const moments = line.filter((e) => !isAfterwards(e.kind));
  // Of a visit with nothing left on its line, the last thing that was said.
  const last = own.reduce<StoredEvent | undefined>((a, e) => (!a || e.at > a.at || (e.at === a.at && e.id > a.id) ? e : a), undefined);
  const lastEventAt = moments.at(-1)?.t ?? line.at(-1)?.t ?? last?.at ?? 0;
  const told = toldBills(
    line.filter((e): e is Placed & EventOf<'bill'> => e.kind === 'bill'),
    attempts,
    line,
  );
  const bills = told.counted;
  const billed = billedOf(told.ofEnergy, attempts, line);
  const delivered = deliveredKWh(attempts, billed, pulledOut !== undefined);
  const paid = paidOf(bills);
  const charging = times.charging;
  const whole = wholeEnergy(delivered);
  const average = !whole.known
    ? whole
    : !charging.known
      ? unknown(charging.why)
      : charging.s <= 0
        ? unknown('no charging time')
        : known(averageKW(whole.value, charging.s));
  const soc = line.flatMap((e) => (e.kind === 'reading' && e.payload.socPct !== undefined ? [e.payload.socPct] : []));
  const socs = pulledIn?.payload.socPct === undefined ? soc : [pulledIn.payload.socPct, ...soc];
  return {
    id: visitId,
    withdrawn: effective.visitWithdrawn,
    visitWithdrawals: effective.visitWithdrawals,
    joinedInto: joinedInto(events, effective.visitWithdrawals),
    newer: effective.newer,
    history: effective.history,
    takenBack: effective.withdrawn,
    aside: effective.aside,
    line,
    siteId: pulledIn?.payload.siteId ?? null,
    carId: pulledIn?.payload.carId ?? null,
    driverId: pulledIn?.payload.drivenBy ?? pulledIn?.personId ?? line[0]?.personId ?? null,
    zone: (pulledIn ?? line[0] ?? last)?.zone ?? 'UTC',
    pulledInAt: pulledIn?.t ?? null,
    dayOnly: pulledIn?.precision === 'day',
    pulledOutAt: pulledOut?.t ?? null,
    lastEventAt,
    leftReason: pulledOut?.payload.reason ?? null,
    linkedVisitId: pulledOut?.payload.continuesVisit ?? null,
    attempts,
    times,
    tape: layTape(moments, attempts, times.queue, pulledOut?.t ?? lastEventAt),
    firstTry: firstTry(line, attempts, billed),
    ended:
      attempts.some((a) => a.proof) || (delivered.known && Number(delivered.value) > 0)
        ? 'charge'
        : !pulledOut || attempts.some((a) => a.outcome.kind === 'open')
          ? 'open'
          : 'none',
    faults: faultsOf(line, attempts),
    delivered,
    average,
    peak: peakKW(attempts),
    socFrom: socs[0] ?? null,
    socTo: socs.length > 1 ? (socs.at(-1) as number) : null,
    bills,
    billsAgain: told.again,
    billed,
    given,
    paid,
    allIn: allInOf(paid, whole),
    marks: marksOf(line),
    dangers: dangersOf(line),
    jumps_s: line.flatMap((e) => (e.jumped_s === undefined ? [] : [e.jumped_s])),
  };
}

/** A given figure that somebody chose stands in place of the derived one, at the first attempt with power. */
function withGiven(attempts: TimedAttempt[], given: Visit['given']): TimedAttempt[] {
  const used = given.filter((g) => g.used === true && g.figure in TIME_RULES);
  const session = attempts.find((a) => a.proof);
  if (!session || used.length === 0) return attempts;
  const times = { ...session.times };
  for (const g of used)
    times[g.figure as TimeName] = {
      known: true,
      s: g.seconds,
      pm_s: g.plusMinus_s ?? GIVEN_PM_S,
      bound: 'exact',
      from: session.opened,
      to: session.proof as Proof,
    };
  return attempts.map((a) => (a === session ? { ...a, times } : a));
}
/** ± of a stopwatch figure when nothing is said, seconds. */
const GIVEN_PM_S = 2;

/** How a visit stands at a moment. @param now UTC ms */
export function visitState(v: Pick<Visit, 'pulledOutAt' | 'lastEventAt'>, now: number): 'over' | 'running' | 'left_open' {
  if (v.pulledOutAt !== null) return 'over';
  return now - v.lastEventAt > LEFT_OPEN_MS ? 'left_open' : 'running';
}

function allInOf(paid: Visit['paid'], delivered: Maybe<string>): Maybe<{ perKWh: string; currency: string }> {
  if (!paid.known) return paid;
  if (!delivered.known) return delivered;
  if (Number(delivered.value) === 0) return unknown('nothing was delivered');
  return known({ perKWh: new Big(paid.value.amount).div(delivered.value).toString(), currency: paid.value.currency });
}

function marksOf(line: readonly Placed[]): Visit['marks'] {
  const marks = line.filter((e): e is PlacedOf<'mark'> => e.kind === 'mark').map((e) => e.payload);
  const as = marks.findLast((m) => m.as !== 'left_out')?.as;
  const out = marks.findLast((m) => m.as === 'left_out');
  return { as: as === 'business' || as === 'private' ? as : null, leftOut: out ? { reason: out.reason ?? '' } : null };
}

/** Every fault and refusal of the visit, in order, with the attempt it belongs to. */
function faultsOf(line: readonly Placed[], attempts: readonly Attempt[]): Visit['faults'] {
  const inAttempt = new Map<string, number>();
  for (const a of attempts) {
    for (const f of a.faults) inAttempt.set(f.mark.id, a.n);
    for (const r of a.refusals) inAttempt.set(r.id, a.n);
  }
  const ending = new Set(attempts.flatMap((a) => a.faults.filter((f) => f.ends).map((f) => f.mark.id)));
  return line.flatMap((e): Visit['faults'] => {
    const attempt = inAttempt.get(e.id) ?? null;
    if (e.kind === 'fault') return [{ code: e.payload.code, side: e.payload.side, attempt, t: e.t, ends: ending.has(e.id) }];
    if (e.kind === 'means_refused') return [{ code: e.payload.fault ?? 'card_refused', side: 'payment', attempt, t: e.t, ends: false }];
    return [];
  });
}
