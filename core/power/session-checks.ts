import { minorDigits, printMoney } from '../units/money';
import { printShare } from '../units/print';
import type { Attempt } from '../visit/attempts/attempt';
import {
  costForTariff,
  digitSlip,
  kWhForDelta,
  kWhForTime,
  LEAST_DELTA_PCT,
  levelsThatFell,
  type Meter,
  tenTimesUsual,
  voltsTimesAmps,
} from '../visit/sense-limits';
import type { SessionPower } from './session-power';

/** A check with its arithmetic. `fine`: `null` where it could not be made. */
export type SessionCheck = { name: string; fine: boolean | null; arithmetic: string };
const one = (x: number) => x.toFixed(1);
const two = (x: number) => x.toFixed(2);
/** A difference of levels as one would write it: 62.4 less 47.4 is 15, though a machine makes it a trace more. */
const plain = (x: number) => String(Number(x.toFixed(2)));

/** What is known around a session: kWh of the car's sessions before it, and what the visit was charged and should cost, decimal strings; `null`: not both are known. */
export type AroundSession = { earlierKWh: readonly number[]; cost: { charged: string; expected: string; currency: string } | null };
const NOTHING_AROUND: AroundSession = { earlierKWh: [], cost: null };

/** Energy held against the plate and the time, and against what was stored; the digit that may have slipped. @see sessionChecks */
export function energyChecks(s: Pick<SessionPower, 'series' | 'whole'>, plateKW: number | null, usableKWh: number | null, meter: Meter): SessionCheck[] {
  const out: SessionCheck[] = [];
  const { delivered_kWh: kWh, charging_s } = s.series;
  const whole = s.whole && s.whole.covered !== 'none' ? s.whole : null;
  const delta = whole && whole.coveredTo - whole.coveredFrom;
  // What the meter rose by between the levels that were read, where it was read at both.
  const stored = whole?.kWh ?? kWh;
  if (kWh !== null && charging_s !== null && plateKW !== null) {
    const { limit_kWh, flag } = kWhForTime({ kWh, rating_kW: plateKW, charging_s });
    out.push({
      name: 'kWh against time',
      fine: !flag,
      arithmetic: `${one(kWh)} kWh; ${plateKW} kW for ${one(charging_s / 60)} min, 5 % and 0.1 kWh more: at most ${one(limit_kWh)}`,
    });
  }
  if (stored !== null && delta !== null && usableKWh !== null) {
    const found = kWhForDelta({ kWh: stored, deltaPct: delta, usableKWh, meter });
    out.push(
      found
        ? {
            name: 'kWh against battery',
            fine: found.side === null,
            arithmetic: `${one(stored)} kWh for ${plain(delta)} % of ${usableKWh} kWh: between ${one(found.low_kWh)} and ${one(found.high_kWh)}, a per cent of doubt at both ends`,
          }
        : { name: 'kWh against battery', fine: null, arithmetic: `${plain(delta)} % of battery: under ${LEAST_DELTA_PCT} % whole per cents say too little` },
    );
  }
  if (kWh !== null) {
    const slip = digitSlip({ kWh, rating_kW: plateKW, charging_s, deltaPct: delta, usableKWh, meter });
    if (slip.perhaps_kWh !== null)
      out.push({ name: 'A digit', fine: false, arithmetic: `${kWh} kWh fits neither; ${one(slip.perhaps_kWh)} would, if a point slipped` });
  }
  return out;
}

/** Every sense check of a session: each says what was held against what, whether it passed or not. Nothing is blocked. */
export function sessionChecks(
  s: SessionPower,
  a: Pick<Attempt, 'readings'>,
  plateKW: number | null,
  usableKWh: number | null,
  meter: Meter,
  { earlierKWh, cost }: AroundSession = NOTHING_AROUND,
): SessionCheck[] {
  const out = energyChecks(s, plateKW, usableKWh, meter);
  const { delivered_kWh: kWh } = s.series;
  const usual = kWh === null ? null : tenTimesUsual(kWh, earlierKWh);
  if (kWh !== null && usual)
    out.push({
      name: 'kWh against earlier sessions',
      fine: usual.side === null,
      arithmetic: `${one(kWh)} kWh; half of ${earlierKWh.length} sessions of this car were under ${one(usual.median)}: ${two(usual.ratio)} times that${usual.side === null ? '' : ', is the point right?'}`,
    });
  const va = a.readings.flatMap((r) => (r.V !== undefined && r.A !== undefined && r.kW !== undefined ? [{ V: r.V, A: r.A, kW: r.kW }] : []));
  const worst = va.map((r) => ({ r, ...voltsTimesAmps(r) })).sort((x, y) => Math.abs(y.va_kW - y.r.kW) - Math.abs(x.va_kW - x.r.kW))[0];
  if (worst)
    out.push({
      name: 'V × A against kW',
      fine: !worst.flag,
      arithmetic: `${worst.r.V} V × ${worst.r.A} A is ${one(worst.va_kW)} kW, shown ${one(worst.r.kW)}; up to ${one(worst.allowed_kW)} apart is heating, meters and unequal instants`,
    });
  if (s.energy)
    out.push({
      name: 'Power against meter',
      fine: !s.energy.flag,
      arithmetic: `kW over ${Math.round(s.energy.covered_s / 60)} min makes ${one(s.energy.integral_kWh)} kWh, the meter rose by ${one(s.energy.meter_kWh)}; ${two(s.energy.allowed_kWh)} apart is rounding`,
    });
  const levels = a.readings.flatMap((r) => (r.socPct === undefined || r.screen !== s.series.source.soc ? [] : [r.socPct]));
  const fell = levelsThatFell(levels);
  if (fell.length > 0)
    out.push({
      name: 'Battery going down',
      fine: false,
      arithmetic: `${fell.map((i) => `${levels[i]} %`).join(', ')} does not fit the levels around it; left out`,
    });
  if (cost) {
    const { difference, allowed, side } = costForTariff({ ...cost, minorDigits: minorDigits(cost.currency) });
    const money = (amount: string) => printMoney(amount, cost.currency);
    out.push({
      name: 'Cost against tariff',
      fine: side === null,
      arithmetic: `${money(cost.charged)} charged for the visit, ${money(cost.expected)} by the price on file: ${money(difference.abs().toFixed())} ${difference.lt(0) ? 'less' : 'more'}, up to ${money(allowed.toFixed())} is rounding`,
    });
  }
  return out;
}

export type Loss = { share: number; pm: number };
/**
 * Share of the metered energy that did not reach the battery: it holds climate, heating and ageing too. ± from whole per
 * cents at both ends. `null` under 20 %. @param usableKWh between 0 and 100 %
 */
export function lossOf(kWh: number, deltaPct: number, usableKWh: number): Loss | null {
  if (deltaPct < LEAST_DELTA_PCT || kWh <= 0) return null;
  return { share: 1 - (usableKWh * deltaPct) / 100 / kWh, pm: usableKWh / 100 / kWh };
}

/** The same in words: nothing less than none is lost, and what cannot be says what may be wrong. */
export function lossWords({ share, pm }: Loss): string {
  const pct = (x: number) => Math.max(1, Math.round(x * 100));
  if (share + pm < 0)
    return `By its levels the battery took ${pct(-share)} % ± ${pct(pm)} more than the meter gave: fewer kWh may be usable than the garage says, or one of the two screens is off.`;
  const lost = share > 0 ? `${printShare(share)} ± ${pct(pm)}` : `at most ${pct(share + pm)} %`;
  return `Did not reach the battery: ${lost}, with climate, heating and ageing in it.`;
}
