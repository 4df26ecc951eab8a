import Big from 'big.js';
import Fraction from 'fraction.js';

/** A number as it was written: the shortest decimal that reads back as it, never with an exponent. */
export function plain(n: number): string {
  const text = String(n);
  return text.includes('e') ? new Big(text).toFixed() : text;
}

/** The exact value of a number as it was written. */
export const exact = (n: number): Fraction => new Fraction(plain(n));

export const NOTHING = new Fraction(0);
/** Of `n` over `d`, both whole. */
export const ratio = (n: bigint, d: bigint): Fraction => new Fraction(n, d);

/** Decimals of a number as it was written. */
export function decimalsOf(n: number): number {
  const text = plain(n);
  const point = text.indexOf('.');
  return point < 0 ? 0 : text.length - point - 1;
}

/** Decimals that a sum or difference of decimals has. */
export function decimalsIn(f: Fraction): number {
  let n = 0;
  for (let scale = 1n; scale % f.d !== 0n; scale *= 10n) n += 1;
  return n;
}

/** Products below it are off by less than a quarter. */
const EXACT_BELOW = 2 ** 50;

/** A number in whole units of ten to the minus `decimals`. @param decimals at least those of the number */
export function units(n: number, decimals: number): bigint {
  // A double holds the nearest to so many whole units, and they are whole.
  const many = n * 10 ** decimals;
  if (many < EXACT_BELOW && decimals < 12) return BigInt(Math.round(many));
  const text = plain(n);
  const point = text.indexOf('.');
  if (point < 0) return BigInt(text) * 10n ** BigInt(decimals);
  const after = text.length - point - 1;
  return BigInt(text.slice(0, point) + text.slice(point + 1)) * 10n ** BigInt(decimals - after);
}

/** Rounded half up, away from nothing. @param places decimals */
export function rounded(f: Fraction, places: number): Fraction {
  const scale = 10n ** BigInt(places);
  const whole = (f.n * scale * 2n + f.d) / (f.d * 2n);
  return ratio(f.s < 0n ? -whole : whole, scale);
}

/** The same as a decimal with all its places. */
export function decimal(f: Fraction, places: number): string {
  const r = rounded(f, places);
  const scale = 10n ** BigInt(places);
  const digits = String((r.n * scale) / r.d).padStart(places + 1, '0');
  const sign = r.s < 0n ? '-' : '';
  return places === 0 ? `${sign}${digits}` : `${sign}${digits.slice(0, -places)}.${digits.slice(-places)}`;
}

/** `11/2`, `5`. */
export const fractionText = (f: Fraction): string => `${f.s < 0n ? '-' : ''}${f.n}${f.d === 1n ? '' : `/${f.d}`}`;

/** The least whole multiple of a step that is no less. @param step above 0 */
export const upTo = (f: Fraction, step: number): Fraction => f.div(step).ceil().mul(step);
