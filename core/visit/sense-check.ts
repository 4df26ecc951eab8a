import type { Reading } from './attempts/attempt';
import { kWhForDelta, kWhForTime, voltsTimesAmps } from './sense-limits';

export type NextReading = { socPct?: number; kW?: number; kWh?: string; cost?: string; V?: number; A?: number };
export type SenseFacts = {
  /** Plate of the stall, kW. */
  ratedKW: number | null;
  /** Usable kWh of the car. */
  usableKWh: number | null;
  /** Seconds of charging so far. */
  charging_s: number | null;
  /** What the tariff says it costs at the kWh that is typed. */
  expectedCost: number | null;
};

/** Up to so many kW a post may be an AC outlet, whose meter sits before the onboard charger. */
const AC_KW = 43;

/**
 * What looks wrong about a reading: asked about once, never blocked.
 * @param before readings of the same attempt in order
 * @returns a question, or `null`
 */
export function readingDoubt(next: NextReading, before: readonly Pick<Reading, 'socPct' | 'kW' | 'kWh' | 'screen'>[], facts: SenseFacts): string | null {
  const lastSoc = before.findLast((r) => r.socPct !== undefined)?.socPct;
  if (next.socPct !== undefined && lastSoc !== undefined && next.socPct < lastSoc)
    return `The battery was at ${lastSoc} % before. Has it gone down to ${next.socPct} %?`;
  const kWh = next.kWh === undefined ? null : Number(next.kWh);
  const lastKWh = before.findLast((r) => r.screen === 'stall' && r.kWh !== undefined)?.kWh;
  if (kWh !== null && lastKWh !== undefined && kWh < Number(lastKWh)) return `The stall showed ${lastKWh} kWh before. Is it ${next.kWh} now?`;
  // Looked at afterwards, readings far apart may well be ten times each other.
  if (facts.charging_s !== null && kWh !== null && lastKWh !== undefined && Number(lastKWh) >= 0.5 && kWh >= Number(lastKWh) * 10)
    return `${next.kWh} kWh is ten times the ${lastKWh} before. Is the point right?`;
  const { ratedKW } = facts;
  if (next.kW !== undefined && ratedKW !== null && next.kW > ratedKW * 1.1) return `The plate says ${ratedKW} kW. Does the screen show ${next.kW}?`;
  if (kWh !== null && ratedKW !== null && facts.charging_s !== null) {
    const { limit_kWh, flag } = kWhForTime({ kWh, rating_kW: ratedKW, charging_s: facts.charging_s });
    const time = facts.charging_s < 60 ? `${Math.round(facts.charging_s)} s` : `${Math.round(facts.charging_s / 60)} min`;
    if (flag) return `In ${time} a stall of ${ratedKW} kW gives at most ${limit_kWh.toFixed(1)} kWh. Is it ${next.kWh}?`;
  }
  if (next.V !== undefined && next.A !== undefined && next.kW !== undefined) {
    const { va_kW, flag } = voltsTimesAmps({ V: next.V, A: next.A, kW: next.kW });
    if (flag) return `${next.V} V × ${next.A} A is ${va_kW.toFixed(0)} kW. Does the screen show ${next.kW}?`;
  }
  const firstSoc = before.find((r) => r.socPct !== undefined)?.socPct;
  if (kWh !== null && next.socPct !== undefined && firstSoc !== undefined && facts.usableKWh !== null) {
    const deltaPct = next.socPct - firstSoc;
    const found = kWhForDelta({ kWh, deltaPct, usableKWh: facts.usableKWh, meter: ratedKW !== null && ratedKW <= AC_KW ? 'ac' : 'dc' });
    if (found?.side)
      return `${firstSoc} to ${next.socPct} % of ${facts.usableKWh} kWh is about ${((deltaPct / 100) * facts.usableKWh).toFixed(0)} kWh. Is it ${next.kWh}?`;
  }
  if (next.cost !== undefined && facts.expectedCost !== null && facts.expectedCost >= 1) {
    const cost = Number(next.cost);
    if (cost > facts.expectedCost * 2 || cost < facts.expectedCost / 2)
      // To as many places as the screen shows them: yen have none.
      return `By tariff it would be about ${facts.expectedCost.toFixed(next.cost.split('.')[1]?.length ?? 0)}. Is it ${next.cost}?`;
  }
  return null;
}

/** A point that slipped makes ten times or a tenth; what the tariff leaves out makes less than this. */
const SLIPPED = 5;

/**
 * What looks wrong about a bill: asked about once, never blocked.
 * @param bill decimal strings as typed
 * @param facts the last kWh that the stall showed, and what the tariff says these kWh cost, as a decimal and in print
 * @returns a question, or `null`
 */
export function billDoubt(
  bill: { amount: string; kWh?: string | undefined },
  facts: { lastKWh: string | null; expected: { amount: string; text: string } | null },
): string | null {
  if (bill.kWh !== undefined && facts.lastKWh !== null && Number(bill.kWh) < Number(facts.lastKWh))
    return `The stall showed ${facts.lastKWh} kWh. Does the bill say ${bill.kWh}?`;
  const expected = Number(facts.expected?.amount ?? 0);
  const amount = Number(bill.amount);
  if (facts.expected && expected >= 1 && (amount >= expected * SLIPPED || amount <= expected / SLIPPED))
    return `By tariff it would be about ${facts.expected.text}. Is it ${bill.amount}?`;
  return null;
}
