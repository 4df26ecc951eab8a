import { currencySymbol, minorDigits } from '@/core/units/money';
import type { DigitField } from '@/ui/pads/digit-pad';
import type { Records } from './stall-state';

/** An amount on the digit pad, with as many digits after the point as its currency has: a charge is 12,000 forint as well as 23.20 euros. */
export const moneyField = (key: string, label: string, currency: string): DigitField => ({
  key,
  label,
  unit: currencySymbol(currency),
  max: 9_999_999,
  decimals: minorDigits(currency),
});

/** Money that is likely: the household's, and what its prices and rates are in. */
export const currenciesOf = (own: string, { tariff, rate }: Pick<Records, 'tariff' | 'rate'>): string[] => [
  ...new Set([own, ...tariff.map((t) => t.fields.currency), ...rate.flatMap((r) => [r.fields.currency, r.fields.into])]),
];
