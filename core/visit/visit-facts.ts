import { printMoney, printPerKWh } from '../units/money';
import { NOT_READ, printDuration, printKW } from '../units/print';
import type { Visit, visitState } from './derive';
import { describeEnd } from './describe-visit';
import { energyText } from './energy-text';
import { timingText } from './timing-text';

type VisitState = ReturnType<typeof visitState>;
/** A figure of a visit as it is shown, and what stands below it: what it is of, or why it is not known. */
export type VisitFact = { label: string; value: string; foot: string };

/** The six figures of a visit, on its page and on paper. */
export function visitFacts(v: Visit, state: VisitState): VisitFact[] {
  const session = v.attempts.find((a) => a.proof);
  const failed = v.attempts.filter((a) => a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up').length;
  const why = (of: { known: boolean; why?: string }) => (of.known ? '' : (of.why ?? ''));
  return [
    {
      label: 'Attempts',
      value: String(v.attempts.length),
      foot:
        v.attempts.length === 0
          ? describeEnd({ state, ended: v.ended, leftReason: v.leftReason }) || 'none'
          : failed === 0
            ? 'none failed'
            : `${failed} failed`,
    },
    {
      label: 'Handshake',
      value: session ? timingText(session.times.handshake) : NOT_READ,
      foot: session
        ? session.times.handshake.known
          ? `attempt ${session.n}, to first ${session.proof?.mark}`
          : session.times.handshake.why
        : 'no power was seen',
    },
    {
      label: 'Lost to faults',
      value: timingText(v.times.lost),
      foot: v.times.visit.known ? `of ${printDuration(v.times.visit.s)} visit` : why(v.times.lost as never),
    },
    {
      label: 'Delivered',
      value: v.delivered.known ? energyText(v.delivered) : NOT_READ,
      foot: !v.delivered.known ? v.delivered.why : v.socFrom !== null && v.socTo !== null ? `${v.socFrom} to ${v.socTo} %` : 'battery not read',
    },
    {
      label: 'Average power',
      value: v.average.known ? printKW(v.average.value) : NOT_READ,
      foot: v.peak.known ? `peak ${Math.round(v.peak.value.kW)}, ${v.peak.value.screen}’s screen` : v.average.known ? v.peak.why : v.average.why,
    },
    {
      label: 'Paid',
      value: v.paid.known ? printMoney(v.paid.value.amount, v.paid.value.currency) : NOT_READ,
      foot: v.allIn.known ? `${printPerKWh(v.allIn.value.perKWh, v.allIn.value.currency)} per kWh with fees` : v.paid.known ? v.allIn.why : v.paid.why,
    },
  ];
}
