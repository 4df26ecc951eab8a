import Big from 'big.js';
import type { Attempt } from './attempts/attempt';
import { attemptsBy, forCharging } from './billed';
import type { EventOf } from './event';
import type { Placed } from './timeline/placed';

export type PlacedBill = Placed & EventOf<'bill'>;
/** A bill that tells another one again. `other`: with another amount than counts; `pending`: as it was noted before anything was charged. */
export type ToldAgain = { bill: PlacedBill; how: 'same' | 'other' | 'pending' };
/** Bills as they count, those that only tell again what one of them tells, and those by which energy is told. */
export type ToldBills = { counted: PlacedBill[]; again: ToldAgain[]; ofEnergy: PlacedBill[] };
/** A bill with what it is held against others by; `of`: the numbers of its sessions. */
type Charged = { bill: PlacedBill; money: string; kWh: number; of: readonly number[]; sessions: string };

const isImported = ({ bill }: Charged): boolean => bill.origin === 'imported';
const isPending = ({ bill }: Charged): boolean => bill.payload.state === 'pending';
const moneyOf = ({ payload }: PlacedBill): string => `${payload.currency} ${new Big(payload.amount).toFixed()}`;
const saysEnergy = ({ payload }: PlacedBill): boolean => payload.kWh !== undefined;
/** As far apart as sessions that are set against each other by their energy may be. */
const sameEnergy = (a: number, b: number): boolean => Math.abs(a - b) <= Math.max(0.5, 0.05 * Math.max(a, b));

/** Whether these bills leave out no session of another one. */
function covering(some: readonly Charged[]): (b: Charged) => boolean {
  const all = new Set(some.flatMap((s) => s.of));
  return (b) => some.length > 0 && b.of.every((n) => all.has(n));
}

/**
 * A session is billed once, and told by whoever has a word of it: the driver's receipt, the network's record, a line of its statement. What was brought
 * in for sessions that somebody noted a bill for tells that bill again, whatever it says and whichever came first; where the noted one is pending still,
 * what was brought in is what was charged. What two files tell of the same sessions to the same amount, or of the same energy, is one bill, and so is what
 * two people noted alike; twice in one file, or by one person, it was billed twice. Refunds take back money each by itself, and what somebody called a bill of its own is one.
 */
export function toldBills(bills: readonly PlacedBill[], attempts: readonly Attempt[], line: readonly Placed[]): ToldBills {
  const counts = forCharging(bills).filter((b) => b.payload.state !== 'refunded');
  const single = counts.filter((b) => b.payload.counts !== 'as_well');
  if (single.length < 2) return { counted: [...bills], again: [], ofEnergy: [...bills] };
  const named = attemptsBy(attempts, line);
  // One that names none is for every session of the visit.
  const every = attempts.flatMap((a) => (a.proof ? [a.n] : []));
  const charged = single.map((bill): Charged => {
    const own = named(bill.payload.sessions);
    const of = own.length > 0 ? own : every;
    return { bill, money: moneyOf(bill), kWh: Number(bill.payload.kWh ?? Number.NaN), of, sessions: of.join(' ') };
  });
  const again = new Set<Charged>();
  // After a refund the same may have been charged anew.
  const refunds = bills.some((b) => b.payload.state === 'refunded');
  const noted: Charged[] = [];
  for (const b of charged) {
    if (isImported(b)) continue;
    const i = refunds ? -1 : noted.findIndex((s) => s.bill.personId !== b.bill.personId && s.money === b.money && s.sessions === b.sessions);
    const before = noted[i];
    if (!before) noted.push(b);
    else if (isPending(before) && !isPending(b)) {
      again.add(before);
      noted[i] = b;
    } else again.add(b);
  }
  const isSettled = covering(noted.filter((b) => !isPending(b)));
  const broughtIn: Charged[] = [];
  for (const b of charged) {
    if (!isImported(b)) continue;
    const told = (s: Charged) => s.bill.deviceId !== b.bill.deviceId && s.sessions === b.sessions && (s.money === b.money || sameEnergy(s.kWh, b.kWh));
    if (isSettled(b) || (!refunds && broughtIn.some(told))) again.add(b);
    else broughtIn.push(b);
  }
  const isCharged = covering(broughtIn.filter((b) => !isPending(b)));
  for (const b of noted) if (isPending(b) && isCharged(b)) again.add(b);
  if (again.size === 0) return { counted: [...bills], again: [], ofEnergy: [...bills] };
  const lesser = new Set([...again].map((b) => b.bill));
  const counted = bills.filter((b) => !lesser.has(b));
  const inOrder = charged.filter((b) => again.has(b));
  return {
    counted,
    again: howTold(
      inOrder,
      counts.filter((b) => !lesser.has(b)),
    ),
    ofEnergy: byEnergy(counted, charged, inOrder),
  };
}

/** What each says of the money that counts: the same as one of the bills, or, all of its file together, as all of them; or another amount. */
function howTold(again: readonly Charged[], counts: readonly PlacedBill[]): ToldAgain[] {
  const sums = (of: readonly PlacedBill[]): string => {
    const byCurrency = new Map<string, Big>();
    for (const { payload: p } of of) byCurrency.set(p.currency, (byCurrency.get(p.currency) ?? new Big(0)).plus(p.amount));
    return [...byCurrency]
      .map(([currency, sum]) => `${currency} ${sum.toFixed()}`)
      .sort()
      .join();
  };
  const [each, all] = [new Set(counts.map(moneyOf)), sums(counts)];
  const files = new Map<string, PlacedBill[]>();
  for (const b of again) if (isImported(b)) files.set(b.bill.deviceId, [...(files.get(b.bill.deviceId) ?? []), b.bill]);
  const whole = new Set([...files].flatMap(([file, of]) => (sums(of) === all ? [file] : [])));
  return again.map((b): ToldAgain => {
    const same = each.has(b.money) || (isImported(b) && whole.has(b.bill.deviceId));
    return { bill: b.bill, how: same ? 'same' : isImported(b) ? 'other' : 'pending' };
  });
}

/** Where a bill that counts says no kWh, those of one file that tell its sessions again and do stand for it. */
function byEnergy(counted: readonly PlacedBill[], charged: readonly Charged[], again: readonly Charged[]): PlacedBill[] {
  const file = again.find((b) => saysEnergy(b.bill))?.bill.deviceId;
  const tells = again.filter((b) => saysEnergy(b.bill) && b.bill.deviceId === file);
  if (tells.length > 0 && !forCharging(counted).some(saysEnergy)) return tells.map((b) => b.bill);
  const known = new Map(charged.map((b) => [b.bill, b]));
  const left = new Set(tells);
  return counted.flatMap((bill) => {
    const c = known.get(bill);
    if (!c || saysEnergy(bill)) return [bill];
    const within = covering([c]);
    const subs = [...left].filter(within);
    for (const s of subs) left.delete(s);
    return subs.length > 0 ? subs.map((s) => s.bill) : [bill];
  });
}

/** Every bill of a visit, counted or not. */
export const allBills = (v: { bills: readonly PlacedBill[]; billsAgain: readonly ToldAgain[] }): PlacedBill[] => [
  ...v.bills,
  ...v.billsAgain.map((a) => a.bill),
];

/** Why a bill that tells again is not counted, to be said beneath it. */
export const AGAIN: Readonly<Record<ToldAgain['how'], string>> = {
  same: 'tells the bill above again: paid once',
  other: 'tells the bill above again, with another amount: hold one against the other',
  pending: 'noted as pending; what was charged is told above',
};
