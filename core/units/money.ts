import Big from 'big.js';

/** Decimal string of an amount: digits, optional fraction of up to six, optional leading minus. */
export const DECIMAL = /^-?\d{1,9}(\.\d{1,6})?$/;

const digits = new Map<string, number>();
/** Minor unit digits of a currency (ISO 4217 as carried by the runtime's locale data). @throws RangeError for what is no currency */
export function minorDigits(currency: string): number {
  const known = digits.get(currency);
  if (known !== undefined) return known;
  const found = new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;
  digits.set(currency, found);
  return found;
}

/** Whether two amounts are the same, however many places they are written with. */
export const isSameMoney = (a: { amount: string; currency: string }, b: { amount: string; currency: string }): boolean =>
  a.currency === b.currency && new Big(a.amount).eq(b.amount);

/** Rounds half up to the currency's minor unit. @param amount decimal string @param currency ISO 4217 */
export const toMinor = (amount: string | Big, currency: string): string => new Big(amount).toFixed(minorDigits(currency), Big.roundHalfUp);

/** Prints an amount in the currency's own form. @param amount decimal string @param currency ISO 4217 */
export function printMoney(amount: string | Big, currency: string): string {
  const places = minorDigits(currency);
  const d = new Big(toMinor(amount, currency));
  return new Intl.NumberFormat('en', {
    style: 'currency',
    currency,
    currencyDisplay: 'narrowSymbol',
    minimumFractionDigits: places,
    maximumFractionDigits: places,
  }).format(d.toNumber());
}

/** Prints a price per kWh with three decimals. @param perKWh decimal string, currency per kWh */
export function printPerKWh(perKWh: string | Big, currency: string): string {
  return new Intl.NumberFormat('en', {
    style: 'currency',
    currency,
    currencyDisplay: 'narrowSymbol',
    minimumFractionDigits: 3,
    maximumFractionDigits: 3,
  }).format(new Big(perKWh).round(3, Big.roundHalfUp).toNumber());
}

/** The currency's symbol, for labels. */
export const currencySymbol = (currency: string): string =>
  new Intl.NumberFormat('en', { style: 'currency', currency, currencyDisplay: 'narrowSymbol' }).formatToParts(0).find((p) => p.type === 'currency')?.value ??
  currency;
