import { isSameMoney } from './money';

it.each([
  ['15.5', 'EUR', '15.50', 'EUR', true],
  ['0', 'EUR', '0.000', 'EUR', true],
  ['15.5', 'EUR', '15.51', 'EUR', false],
  ['15.5', 'EUR', '15.5', 'CHF', false],
])('%s %s and %s %s are the same: %s', (a, of, b, than, want) => expect(isSameMoney({ amount: a, currency: of }, { amount: b, currency: than })).toBe(want));
