import Big from 'big.js';
import { known, type Maybe, unknown } from '../units/known';
import { attemptText } from './attempt-text';
import type { Attempt } from './attempts/attempt';
import type { EventOf } from './event';
import { idsOf, type Placed } from './timeline/placed';

/** A bill with the numbers of the attempts it is for; none: the whole visit. */
export type Billed = { attempts: readonly number[]; kWh?: string };

/** The bills for charging: a parking ticket is of no price of a kWh, and says nothing of energy. */
export const forCharging = <B extends Pick<EventOf<'bill'>, 'payload'>>(bills: readonly B[]): B[] => bills.filter((b) => b.payload.what !== 'parking');

/** Everything paid; refunds taken off. Unknown across currencies: they are never added without a rate. */
export function paidOf(bills: readonly Pick<EventOf<'bill'>, 'payload'>[]): Maybe<{ amount: string; currency: string }> {
  const first = bills[0];
  if (!first) return unknown('no bill recorded');
  if (bills.some((b) => b.payload.currency !== first.payload.currency)) return unknown('bills in more than one currency');
  const amount = bills.reduce((s, b) => (b.payload.state === 'refunded' ? s.minus(b.payload.amount) : s.plus(b.payload.amount)), new Big(0));
  return known({ amount: amount.toString(), currency: first.payload.currency });
}

/**
 * What was billed, by attempt. Refunds are left out: they take back money, not energy; parking, which is none.
 * An attempt is named by any of its events, so that a correction which gives it another first event unnames nothing;
 * an event that was taken back names nothing.
 */
export function billedOf(bills: readonly EventOf<'bill'>[], attempts: readonly Attempt[], line: readonly Placed[]): Billed[] {
  if (bills.length === 0) return [];
  const named = attemptsBy(attempts, line);
  return forCharging(bills)
    .filter((b) => b.payload.state !== 'refunded')
    .map((b) => ({ attempts: named(b.payload.sessions), ...(b.payload.kWh === undefined ? {} : { kWh: b.payload.kWh }) }));
}

/** The attempts by the events that belong to them: which ones these ids name, their numbers in order. Looked up once for many bills. */
export function attemptsBy(attempts: readonly Attempt[], line: readonly Placed[]): (eventIds: readonly string[]) => number[] {
  const placeOf = new Map(line.flatMap((e) => idsOf(e).map((id) => [id, e.place] as const)));
  const attemptOf = (id: string): number | never[] => {
    const place = placeOf.get(id);
    return place === undefined ? [] : (attempts.findLast((a) => a.opened.place <= place)?.n ?? []);
  };
  return (eventIds) => [...new Set(eventIds.flatMap(attemptOf))].sort((a, b) => a - b);
}

/** Numbers of the attempts that these events belong to, in order. */
export const attemptsNamed = (eventIds: readonly string[], attempts: readonly Attempt[], line: readonly Placed[]): number[] =>
  attemptsBy(attempts, line)(eventIds);

/** The kWh that bills for this attempt alone say; the greatest, as what is billed twice was delivered once. */
export function kWhBilledFor(n: number, billed: readonly Billed[]): string | undefined {
  const own = billed.filter((b) => b.attempts.length === 1 && b.attempts[0] === n).flatMap((b) => (b.kWh === undefined ? [] : [b.kWh]));
  return own.length === 0 ? undefined : own.reduce((a, b) => (new Big(b).gt(a) ? b : a));
}

/** The kWh of all bills together, when each says some and they leave out none of these attempts. */
export function kWhBilledForAll(sessions: readonly number[], billed: readonly Billed[]): string | undefined {
  if (billed.length === 0 || billed.some((b) => b.kWh === undefined)) return undefined;
  const whole = billed.some((b) => b.attempts.length === 0);
  if (!whole && sessions.some((n) => !billed.some((b) => b.attempts.includes(n)))) return undefined;
  return billed.reduce((sum, b) => sum.plus(b.kWh as string), new Big(0)).toString();
}

/** An attempt as a bill can name it: by its first event, or by any other that belongs to it. */
export type AttemptChoice = { id: string; name: string; events: string[] };

/** @param stallName name on a stall's post, empty when it is not known */
export function attemptChoices(attempts: readonly Attempt[], line: readonly Placed[], stallName: (stallId: string) => string): AttemptChoice[] {
  return attempts.map((a, i) => ({
    id: a.opened.id,
    name: attemptText(a, a.stallId ? stallName(a.stallId) : ''),
    events: line.filter((e) => e.place >= a.opened.place && e.place < (attempts[i + 1]?.opened.place ?? Number.POSITIVE_INFINITY)).flatMap(idsOf),
  }));
}
