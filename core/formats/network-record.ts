import Big from 'big.js';
import { printDuration, printKWh } from '../units/print';
import { localDay, printClock, printDay } from '../units/zoned';
import { chargingEnd } from '../visit/attempt-times';
import { attemptsBy } from '../visit/billed';
import { sessionEnergy } from '../visit/delivered';
import type { Visit } from '../visit/derive';
import { allBills } from '../visit/told-bills';
import { BREACH_WORDS } from './breach-words';
import { documentOf } from './cdr-bills';
import { type BillIn, keptCdr, type PeriodIn, type SignedIn } from './ocpi-cdrs';

/** A figure as the network has it, beside one's own; `null`: it was not recorded. */
export type Beside = { what: string; network: string; own: string | null };
/** The network's record of a charge, as it is read beside the visit: what differs, period by period, and as whom it was signed. */
export type NetworkRecord = {
  billId: string;
  id: string;
  evse: string;
  figures: Beside[];
  periods: PeriodIn[];
  /** What does not add up in it, or breaks its standard. */
  said: string[];
  signed: SignedIn | null;
};

/** What came of holding a signed value against a key. `no_key`: none was given; `unknown`: signed in a way that is not known here. */
export type SignedVerdict = 'holds' | 'differs' | 'no_key' | 'bad_key' | 'unknown';
export type SignedValue = { nature: string; verdict: SignedVerdict; meter: string | null };
/** `kWh`: by the registers of those values whose signature holds. */
export type SignedTold = { values: SignedValue[]; kWh: string | null; from: number | null; to: number | null };

/** A network's record with what came of its signatures. */
export type CheckedRecord = NetworkRecord & { told: SignedTold | null };

/** The records of networks that came with the bills of a visit; a bill that was typed has none. */
export function networkRecords(v: Pick<Visit, 'bills' | 'billsAgain' | 'attempts' | 'line' | 'zone'>): NetworkRecord[] {
  const namedBy = attemptsBy(v.attempts, v.line);
  return allBills(v).flatMap((b) => {
    const document = documentOf(b.payload);
    const kept = document === null ? null : keptCdr(document);
    if (!kept) return [];
    const { bill, breaches, signed } = kept;
    const named = namedBy(b.payload.sessions);
    const own = v.attempts.filter((a) => a.proof && (named.length === 0 || named.includes(a.n)));
    const said = breaches.map((x) => `${x.pointer.slice(bill.pointer.length).slice(1).replaceAll('/', ' ')}: ${BREACH_WORDS[x.code]}`);
    return [{ billId: b.id, id: bill.id, evse: bill.evse, figures: figuresOf(bill, own, v.zone), periods: bill.periods, said, signed }];
  });
}

function figuresOf(bill: BillIn, own: Visit['attempts'], zone: string): Beside[] {
  const [first, last] = [own[0], own.at(-1)];
  const end = last ? (last.unplugged ?? chargingEnd(last)) : undefined;
  const energies = own.map((a) => sessionEnergy(a, []));
  const whole = energies.length > 0 && energies.every((e) => e && !e.atLeast);
  const kWh = whole ? energies.reduce((s, e) => s.plus(e?.value ?? 0), new Big(0)).toFixed() : null;
  const times = [bill.start, bill.end, ...(first?.proof ? [first.proof.t] : []), ...(end ? [end.t] : [])];
  // The day is said where they are not all of one.
  const oneDay = new Set(times.map((t) => localDay(t, zone))).size === 1;
  const at = (t: number) => (oneDay ? printClock(t, zone) : `${printDay(t, zone)}, ${printClock(t, zone)}`);
  return [
    { what: 'Start', network: at(bill.start), own: first?.proof ? at(first.proof.t) : null },
    { what: 'End', network: at(bill.end), own: end ? at(end.t) : null },
    { what: 'Energy', network: printKWh(bill.kWh), own: kWh === null ? null : printKWh(kWh) },
    { what: 'Time', network: printDuration(bill.minutes * 60), own: first?.proof && end ? printDuration((end.t - first.proof.t) / 1000) : null },
    ...(bill.parking_min === null ? [] : [{ what: 'of that parked', network: printDuration(bill.parking_min * 60), own: null }]),
  ];
}
