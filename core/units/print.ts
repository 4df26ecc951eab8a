import Big from 'big.js';
import { type ConsumptionUnit, consumptionIn } from './consumption';
import { type DistanceUnit, KM_PER_MILE } from './distance';

/** What stands where a figure is not known. */
export const NOT_READ = 'not read';

/** A true minus sign, so that negative figures align with digits. */
const signed = (negative: boolean, text: string) => (negative ? `\u2212${text}` : text);

/**
 * Prints a duration.
 * @param s seconds, may be negative (the plug–card gap is signed)
 * @returns `33.4 s` below a minute, `m:ss` below an hour, `h:mm:ss` above
 */
export function printDuration(s: number): string {
  const a = Math.abs(s);
  // 59.95 would print as "60.0 s": round first, then choose the form.
  const tenths = Math.round(a * 10) / 10;
  if (tenths < 60) return signed(s < 0 && tenths > 0, `${tenths.toFixed(1)} s`);
  const whole = Math.round(a);
  const two = (n: number) => String(n).padStart(2, '0');
  const h = Math.floor(whole / 3600);
  const m = Math.floor((whole % 3600) / 60);
  return signed(s < 0, h > 0 ? `${h}:${two(m)}:${two(whole % 60)}` : `${m}:${two(whole % 60)}`);
}

/** The running clock at the stall: `m:ss.t`, s in seconds ≥ 0, tenths cut, not rounded, as a stopwatch does. */
export function printStopwatch(s: number): string {
  const tenths = Math.max(0, Math.floor(s * 10 + 1e-6));
  const whole = Math.floor(tenths / 10);
  const h = Math.floor(whole / 3600);
  const m = Math.floor((whole % 3600) / 60);
  const mmss = `${h > 0 ? `${h}:${String(m).padStart(2, '0')}` : m}:${String(whole % 60).padStart(2, '0')}`;
  return h > 0 ? mmss : `${mmss}.${tenths % 10}`;
}

/** By how much a time was moved, in words: "1 h 20 min earlier". @param s whole seconds, later is positive */
export function printShift(s: number): string {
  const a = Math.abs(Math.round(s));
  const parts: [number, string][] = [
    [Math.floor(a / 86_400), 'd'],
    [Math.floor((a % 86_400) / 3600), 'h'],
    [Math.floor((a % 3600) / 60), 'min'],
    [a % 60, 's'],
  ];
  const said = parts.flatMap(([n, unit]) => (n > 0 ? [`${n} ${unit}`] : [])).join(' ');
  return said === '' ? 'as recorded' : `${said} ${s > 0 ? 'later' : 'earlier'}`;
}

/** A long time to a figure that a reader holds: minutes, hours, days. @param s seconds ≥ 0 */
export function printLong(s: number): string {
  if (s < 5400) return `${Math.round(s / 60)} min`;
  if (s < 36 * 3600) return `${(s / 3600).toFixed(1)} h`;
  return `${(s / 86_400).toFixed(s < 864_000 ? 1 : 0)} days`;
}

/** Between how long and how long, as far as either end is known. */
export function printBetween(least: number, most: number | null): string {
  if (most !== null) return least === 0 ? `at most ${printLong(most)}` : `${printLong(least)} to ${printLong(most)}`;
  return least === 0 ? 'nobody saw how long' : `${printLong(least)} or more`;
}

/** Energy, one decimal. @param kWh decimal string or number, kWh */
export const printKWh = (kWh: string | number) => `${kWhFigure(kWh)} kWh`;
/** The same under a heading that says its unit. @param kWh kilowatt-hours */
export const kWhFigure = (kWh: string | number) => new Big(kWh).toFixed(1, Big.roundHalfUp);

/** Power, whole kW. @param kW kilowatts */
export const printKW = (kW: number) => `${Math.round(kW)} kW`;

/** Distance: one decimal below ten. @param km kilometres ≥ 0 @param unit in which it is read */
export function printDistance(km: number, unit: DistanceUnit = 'km'): string {
  const d = unit === 'mi' ? km / KM_PER_MILE : km;
  return `${d < 9.95 ? d.toFixed(1) : Math.round(d)} ${unit}`;
}

/** Consumption in the way it is spoken of. @param kWhPer100km above 0 */
export function printConsumption(kWhPer100km: number, unit: ConsumptionUnit = 'kWh/100 km'): string {
  return `${consumptionIn(kWhPer100km, unit).toFixed(unit === 'Wh/km' ? 0 : 1)} ${unit}`;
}

/** A share as whole per cent. @param share 0…1 */
export const printShare = (share: number) => `${Math.round(share * 100)} %`;

/** How long ago, coarse. @param s seconds ≥ 0 */
export function printAgo(s: number): string {
  if (s < 45) return 'just now';
  if (s < 3600) return `${Math.max(1, Math.round(s / 60))} min ago`;
  return `${Math.round(s / 3600)} h ago`;
}

const plural = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
/** `1 visit`, `2 visits`. */
export const printCount = (n: number, one: string, many = `${one}s`) => plural(n, one, many);
