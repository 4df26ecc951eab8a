import Big from 'big.js';

/** Decimal string of an amount: digits, optional fraction of up to six, optional leading minus. */
export const DECIMAL = /^-?\d{1,9}(\.\d{1,6})?$/;

/**
 * The most that a unit (a kWh, a start, a month) and that a bill may be, in any currency: a kWh is a third of a euro, 230 forint,
 * 4,000 đồng or 30,000 Lebanese pounds (common practice, no source).
 */
export const MOST_PRICE = 999_999;
export const MOST_AMOUNT = 100_000_000;

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

/** Prints a price per kWh with three decimals; with fewer where a kWh costs ten and more of its currency. @param perKWh decimal string, currency per kWh */
export function printPerKWh(perKWh: string | Big, currency: string): string {
  const price = new Big(perKWh);
  const places = price.abs().gte(1000) ? 0 : price.abs().lt(10) ? 3 : minorDigits(currency) === 0 ? 1 : 2;
  return new Intl.NumberFormat('en', {
    style: 'currency',
    currency,
    currencyDisplay: 'narrowSymbol',
    minimumFractionDigits: places,
    maximumFractionDigits: places,
  }).format(price.round(places, Big.roundHalfUp).toNumber());
}

/** The currency's symbol, for labels. */
export const currencySymbol = (currency: string): string =>
  new Intl.NumberFormat('en', { style: 'currency', currency, currencyDisplay: 'narrowSymbol' }).formatToParts(0).find((p) => p.type === 'currency')?.value ??
  currency;
