import Big from 'big.js';
import type { Attempt } from './attempts/attempt';
import { attemptsNamed, forCharging } from './billed';
import type { EventOf } from './event';
import type { Placed } from './timeline/placed';

export type PlacedBill = Placed & EventOf<'bill'>;
/** Bills as they count, and those that only tell again what one of them tells: paid once, told twice. */
export type ToldBills = { counted: PlacedBill[]; again: PlacedBill[] };

const isImported = (b: PlacedBill): boolean => b.origin === 'imported';
/** Two figures of one session: as far apart as sessions that are set against each other by their energy may be. */
const sameEnergy = ({ payload: a }: PlacedBill, { payload: b }: PlacedBill): boolean => {
  const [x, y] = [Number(a.kWh ?? Number.NaN), Number(b.kWh ?? Number.NaN)];
  return Math.abs(x - y) <= Math.max(0.5, 0.05 * Math.max(x, y));
};
const isPending = (b: PlacedBill): boolean => b.payload.state === 'pending';
const sameMoney = (a: PlacedBill, b: PlacedBill): boolean => a.payload.currency === b.payload.currency && new Big(a.payload.amount).eq(b.payload.amount);

/**
 * A session is billed once, and told by whoever has a word of it: the driver's receipt, the network's record, a line of its statement. What was brought
 * in for sessions that somebody noted a bill for tells that bill again, whatever it says and whichever came first; where the noted one is pending still,
 * what was brought in is what was charged. What two files tell of the same sessions to the same amount, or of the same energy, is one bill, and so is what
 * two people noted alike; twice in one file, or by one person, it was billed twice. Refunds take back money each by itself, and what somebody called a bill of its own is one.
 */
export function toldBills(bills: readonly PlacedBill[], attempts: readonly Attempt[], line: readonly Placed[]): ToldBills {
  const charged = forCharging(bills).filter((b) => b.payload.state !== 'refunded' && b.payload.counts !== 'as_well');
  if (charged.length < 2) return { counted: [...bills], again: [] };
  // One that names none is for every session of the visit.
  const sessions = attempts.flatMap((a) => (a.proof ? [a.n] : []));
  const named = new Map(charged.map((b) => [b.id, attemptsNamed(b.payload.sessions, attempts, line)]));
  const of = (b: PlacedBill): readonly number[] => {
    const own = named.get(b.id) ?? [];
    return own.length > 0 ? own : sessions;
  };
  /** Whether these bills leave out no session of that one. */
  const cover = (some: readonly PlacedBill[], b: PlacedBill): boolean => some.length > 0 && of(b).every((n) => some.some((s) => of(s).includes(n)));
  const sameSessions = (a: PlacedBill, b: PlacedBill): boolean => cover([a], b) && cover([b], a);
  const refunds = bills.some((b) => b.payload.state === 'refunded');
  const again = new Set<PlacedBill>();
  const noted: PlacedBill[] = [];
  for (const b of charged.filter((b) => !isImported(b))) {
    const i = refunds ? -1 : noted.findIndex((s) => s.personId !== b.personId && sameMoney(s, b) && sameSessions(s, b));
    const before = noted[i];
    if (!before) noted.push(b);
    else if (isPending(before) && !isPending(b)) {
      again.add(before);
      noted[i] = b;
    } else again.add(b);
  }
  const settled = noted.filter((b) => !isPending(b));
  const standing: PlacedBill[] = [];
  for (const b of charged.filter(isImported)) {
    const toldBefore = standing.some((s) => s.deviceId !== b.deviceId && (sameMoney(s, b) || sameEnergy(s, b)) && sameSessions(s, b));
    if (cover(settled, b) || (toldBefore && !refunds)) again.add(b);
    else standing.push(b);
  }
  const paid = standing.filter((s) => !isPending(s));
  for (const b of noted) if (isPending(b) && cover(paid, b)) again.add(b);
  return { counted: bills.filter((b) => !again.has(b)), again: bills.filter((b) => again.has(b)) };
}

/** The bills that say how many kWh were delivered: those that count, or, where none of these says, those of one file that tell again. */
export function billsOfEnergy({ counted, again }: ToldBills): PlacedBill[] {
  const says = (b: PlacedBill) => b.payload.kWh !== undefined;
  const first = again.find(says);
  return first === undefined || forCharging(counted).some(says) ? counted : again.filter((b) => b.deviceId === first.deviceId);
}

type Told = { bills: readonly PlacedBill[]; billsAgain: readonly PlacedBill[] };
const sumOf = (bills: readonly PlacedBill[]): Big => bills.reduce((s, b) => s.plus(b.payload.amount), new Big(0));

/** What was brought in and tells another amount than what counts: neither that of one of them, nor, all of its file together, that of all. */
export function otherAmounts({ bills, billsAgain }: Told): PlacedBill[] {
  const charged = forCharging(bills).filter((b) => b.payload.state !== 'refunded');
  return billsAgain.filter((b) => {
    if (!isImported(b) || charged.some((c) => sameMoney(c, b))) return false;
    const file = billsAgain.filter((o) => o.deviceId === b.deviceId);
    return [...file, ...charged].some((o) => o.payload.currency !== b.payload.currency) || !sumOf(file).eq(sumOf(charged));
  });
}

/** Why a bill that tells again is not counted, to be said beneath it. */
export function againSaid(b: PlacedBill, v: Told): string {
  if (!isImported(b) && isPending(b)) return 'noted as pending; what was charged is told above';
  return otherAmounts(v).includes(b) ? 'tells the bill above again, with another amount: hold one against the other' : 'tells the bill above again: paid once';
}
