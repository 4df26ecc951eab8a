import Big from 'big.js';

/** Of a number of at most six decimals below a billion its millionths are whole, and a double tells them apart. */
const PARTS = 1e6;
const DECIMALS = 6;
const LEAST_BIG = 1e9;
/** Whole numbers are exact to here, with room for one more. */
const MOST = Number.MAX_SAFE_INTEGER - LEAST_BIG * PARTS;

/**
 * The exact sum of decimals. Ten thousand bills are added as whole millionths; what is longer or greater than such a number may be is added as it is.
 * @param values decimal strings @throws Error for one that is none
 */
export function sumOf(values: readonly string[]): Big {
  let sum = new Big(0);
  let parts = 0;
  for (const value of values) {
    const point = value.indexOf('.');
    const short = /^-?\d+(?:\.\d+)?$/.test(value) && (point < 0 || value.length - point - 1 <= DECIMALS);
    const millionths = short ? Math.round(Number(value) * PARTS) : Number.NaN;
    if (!(Math.abs(millionths) < LEAST_BIG * PARTS)) {
      sum = sum.plus(value);
      continue;
    }
    parts += millionths;
    if (Math.abs(parts) < MOST) continue;
    sum = sum.plus(new Big(parts).div(PARTS));
    parts = 0;
  }
  return sum.plus(new Big(parts).div(PARTS));
}
