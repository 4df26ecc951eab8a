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

/** Signs that several currencies have: beside each other dollars, crowns and rupees are told apart, CA$ and SEK. */
const SHARED: ReadonlySet<string> = new Set(['$', '¥', 'kr', '£', '₩', 'Rs']);
const signOf = (currency: string, currencyDisplay: 'narrowSymbol' | 'symbol'): string =>
  new Intl.NumberFormat('en', { style: 'currency', currency, currencyDisplay }).formatToParts(0).find((p) => p.type === 'currency')?.value ?? currency;

const formats = new Map<string, Intl.NumberFormat>();
function formatOf(currency: string, places: number): Intl.NumberFormat {
  const key = `${currency} ${places}`;
  const made =
    formats.get(key) ??
    new Intl.NumberFormat('en', {
      style: 'currency',
      currency,
      currencyDisplay: SHARED.has(signOf(currency, 'narrowSymbol')) ? 'symbol' : 'narrowSymbol',
      minimumFractionDigits: places,
      maximumFractionDigits: places,
    });
  formats.set(key, made);
  return made;
}

/** Prints an amount in the currency's own form. @param amount decimal string @param currency ISO 4217 */
export const printMoney = (amount: string | Big, currency: string): string =>
  formatOf(currency, minorDigits(currency)).format(new Big(toMinor(amount, currency)).toNumber());

/** Prints a price per kWh with three decimals; with fewer where a kWh costs ten and more of its currency. @param perKWh decimal string, currency per kWh */
export function printPerKWh(perKWh: string | Big, currency: string): string {
  const price = new Big(perKWh);
  const places = price.abs().gte(1000) ? 0 : price.abs().lt(10) ? 3 : minorDigits(currency) === 0 ? 1 : 2;
  return formatOf(currency, places).format(price.round(places, Big.roundHalfUp).toNumber());
}

/** The currency's sign, for labels. */
export const currencySymbol = (currency: string): string => {
  const narrow = signOf(currency, 'narrowSymbol');
  return SHARED.has(narrow) ? signOf(currency, 'symbol') : narrow;
};
