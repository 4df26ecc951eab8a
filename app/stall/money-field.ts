import { currencySymbol, minorDigits } from '@/core/units/money';
import type { DigitField } from '@/ui/pads/digit-pad';

/** An amount on the digit pad, with as many digits after the point as its currency has: a charge is 12,000 forint as well as 23.20 euros. */
export const moneyField = (key: string, label: string, currency: string): DigitField => ({
  key,
  label,
  unit: currencySymbol(currency),
  max: 9_999_999,
  decimals: minorDigits(currency),
});
