import Decimal from 'decimal.js';
import { known, type Maybe, unknown } from '../units/known';
import type { Attempt } from './attempts';
import { type Billed, kWhBilledFor, kWhBilledForAll } from './billed';

/** The stall's last kWh of a session, decimal string; the car's figures are never mixed in. */
export function sessionStallKWh(a: Attempt): string | undefined {
  for (let i = a.readings.length - 1; i >= 0; i--) {
    const r = a.readings[i];
    if (r?.screen === 'stall' && r.kWh !== undefined) return r.kWh;
  }
  return undefined;
}

/**
 * Energy delivered in a visit.
 * Per session the stall's last kWh, else that of a bill for it alone; where one is missing, all bills' kWh instead.
 * @param attempts all attempts of the visit
 * @param over the visit has ended: without a session it delivered nothing
 * @returns kWh as a decimal string
 */
export function deliveredKWh(attempts: readonly Attempt[], billed: readonly Billed[], over: boolean): Maybe<string> {
  const sessions = attempts.filter((a) => a.proof);
  const each = sessions.map((a) => sessionStallKWh(a) ?? kWhBilledFor(a.n, billed));
  if (sessions.length > 0 && each.every((x) => x !== undefined)) return known(each.reduce((sum, x) => sum.plus(x), new Decimal(0)).toString());
  const all = kWhBilledForAll(
    sessions.map((a) => a.n),
    billed,
  );
  if (all !== undefined) return known(all);
  if (sessions.length > 0) return unknown('no kWh was read from the stall or the bill');
  if (!over) return unknown('the visit is still open');
  if (attempts.some((a) => a.outcome.kind === 'open')) return unknown('power was not recorded');
  return known('0');
}

/** Average power, kW: delivered energy over charging time. @param kWh decimal string @param charging_s seconds > 0 */
export const averageKW = (kWh: string, charging_s: number): number => new Decimal(kWh).times(3600).div(charging_s).toNumber();

/** The highest kW on the stall's screen, else on the car's, with which. */
export function peakKW(attempts: readonly Attempt[]): Maybe<{ kW: number; screen: 'stall' | 'car' }> {
  for (const screen of ['stall', 'car'] as const) {
    const values = attempts.flatMap((a) => a.readings.filter((r) => r.screen === screen && r.kW !== undefined).map((r) => r.kW as number));
    if (values.length > 0) return known({ kW: Math.max(...values), screen });
  }
  return unknown('no kW was read');
}
