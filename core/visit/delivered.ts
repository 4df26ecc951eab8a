import Big from 'big.js';
import { known, type Maybe, type Unknown, unknown } from '../units/known';
import { chargingEnd } from './attempt-times';
import type { Attempt, Reading } from './attempts/attempt';
import { type Billed, kWhBilledFor, kWhBilledForAll } from './billed';
import { powerLooks, type Screen } from './shown-power';

/** kWh as a decimal string. `atLeast`: read before the charge was over, and nothing later tells of the rest. */
export type Energy = { known: true; value: string; atLeast?: true };

const exactly = (value: string): Energy => ({ known: true, value });
const atLeast = (value: string): Energy => ({ known: true, value, atLeast: true });

/** A figure read so shortly before the end of the charge was read at its end, seconds. Common practice, no source. */
const AT_END_S = 15;
/** Displays count in tenths of a kWh, if not finer. Common practice, no source. */
const DISPLAY_STEP_KWH = 0.1;

/** The step by which a figure counts, as far as its digits tell. */
const stepOf = (kWh: string): number => Math.max(DISPLAY_STEP_KWH, 10 ** -(kWh.split('.')[1]?.length ?? 0));

/** True for a kWh figure after which no more came than its display could show. */
function isFinal(kWh: string, r: Reading, a: Attempt): boolean {
  const end = chargingEnd(a) ?? a.ended?.at;
  if (!end) return false;
  if (r.mark.place >= end.place || r.mark.precision === 'day' || end.precision === 'day') return true;
  const gap_s = (end.t - r.mark.t) / 1000 - r.mark.pm_s - end.pm_s;
  const power = (screen: Reading['screen']) => a.readings.findLast((x) => x.screen === screen && x.kW !== undefined)?.kW;
  const kW = power('stall') ?? power('car');
  return gap_s <= AT_END_S || (kW !== undefined && (kW * gap_s) / 3600 <= stepOf(kWh));
}

/**
 * Energy of a session by the stall: the counter's last figure, or the difference of the meter's, whose start and end may come in
 * different readings. The car's figures are never mixed in; a meter that runs backwards tells nothing.
 */
function stallEnergy(a: Attempt): Energy | undefined {
  const readings = a.readings.filter((r) => r.screen === 'stall');
  const start = readings.find((r) => r.meterStart !== undefined)?.meterStart;
  const found = readings.flatMap((r): Energy[] => {
    const own = r.meterStart ?? start;
    const metered = r.meterEnd === undefined || own === undefined ? undefined : new Big(r.meterEnd).minus(own);
    return [
      ...(metered === undefined || metered.lt(0) ? [] : [(a.ended || chargingEnd(a) ? exactly : atLeast)(metered.toString())]),
      ...(r.kWh === undefined ? [] : [(isFinal(r.kWh, r, a) ? exactly : atLeast)(r.kWh)]),
    ];
  });
  return found.findLast((x) => !x.atLeast) ?? found.at(-1);
}

/** What the stall has shown of a session so far, kWh; nothing where it was not read. */
export const stallKWhSoFar = (a: Attempt): string | undefined => stallEnergy(a)?.value;

/** What the stall has shown of these sessions so far, kWh, a decimal string; nothing where none of them was read. */
export function stallKWhOf(attempts: readonly Attempt[]): string | undefined {
  const read = attempts.flatMap((a) => stallKWhSoFar(a) ?? []);
  return read.length === 0 ? undefined : read.reduce((sum, x) => sum.plus(x), new Big(0)).toString();
}

/** Energy of one session: the stall's figure, or that of a bill for it alone where the stall was not read to the end. */
export function sessionEnergy(a: Attempt, billed: readonly Billed[]): Energy | undefined {
  const read = stallEnergy(a);
  if (read && !read.atLeast) return read;
  const onBill = kWhBilledFor(a.n, billed);
  return onBill !== undefined && !(read && new Big(read.value).gt(onBill)) ? exactly(onBill) : read;
}

/**
 * Energy delivered in a visit.
 * Per session the stall's last kWh, read at the end of the charge, else that of a bill for it alone; where one is missing or was
 * read too early, all bills' kWh instead, if they are not less; else at least what was read.
 * @param attempts all attempts of the visit
 * @param over the visit has ended: without a session it delivered nothing
 */
export function deliveredKWh(attempts: readonly Attempt[], billed: readonly Billed[], over: boolean): Energy | Unknown {
  const sessions = attempts.filter((a) => a.proof);
  const each = sessions.map((a) => sessionEnergy(a, billed));
  const read = each.filter((x) => x !== undefined);
  const sum = read.reduce((s, x) => s.plus(x.value), new Big(0));
  const all = read.length === sessions.length && read.length > 0;
  if (all && read.every((x) => !x.atLeast)) return exactly(sum.toString());
  const onBills = kWhBilledForAll(
    sessions.map((a) => a.n),
    billed,
  );
  if (onBills !== undefined && sum.lte(onBills)) return exactly(onBills);
  if (all) return atLeast(sum.toString());
  if (sessions.some((a) => a.readings.some((r) => r.meterEnd !== undefined)) && read.length === 0)
    return unknown('the meter ran backwards, or its start was not read');
  if (sessions.length > 0) return unknown('no kWh was read from the stall or the bill');
  if (!over) return unknown('the visit is still open');
  if (attempts.some((a) => a.outcome.kind === 'open')) return unknown('power was not recorded');
  return exactly('0');
}

/** The energy where all of it is known: for averages, prices and verdicts on a bill, which an early reading does not bear. */
export const wholeEnergy = (e: Energy | Unknown): Maybe<string> =>
  !e.known ? e : !e.atLeast ? known(e.value) : unknown('the kWh were read before the charge was over');

/** Average power, kW: delivered energy over charging time. @param kWh decimal string @param charging_s seconds > 0 */
export const averageKW = (kWh: string, charging_s: number): number => new Big(kWh).times(3600).div(charging_s).toNumber();

/** The highest kW of all sessions, each by the looks that its curve is made of, and on which screen. */
export function peakKW(attempts: readonly Attempt[]): Maybe<{ kW: number; screen: Screen }> {
  const peaks = attempts.flatMap((a) => {
    const { screen, points } = powerLooks(a.readings);
    return points.map(({ kW }) => ({ kW, screen }));
  });
  const [first, ...rest] = peaks;
  if (first) return known(rest.reduce((most, p) => (p.kW > most.kW ? p : most), first));
  return unknown('no kW was read');
}
