import { type DigitField, notTaken, pressDigit } from './digit-pad';

const battery: DigitField = { key: 'socPct', label: 'Battery', unit: '%', max: 100, decimals: 0 };
const energy: DigitField = { key: 'kWh', label: 'Delivered', unit: 'kWh', max: 999, decimals: 1 };
const type = (field: DigitField, keys: string) => [...keys].reduce((text, k) => pressDigit(text, k, field), '');

describe('the digit pad', () => {
  it.each([
    ['61', '61'],
    ['100', '100'],
    ['140', '14'],
    ['061', '61'],
    ['6.1', '61'],
  ])('battery: %s becomes %s', (keys, text) => expect(type(battery, keys)).toBe(text));
  it.each([
    ['41.6', '41.6'],
    ['.5', '0.5'],
    ['41.63', '41.6'],
    ['4..1', '4.1'],
    ['99999', '999'],
  ])('energy: %s becomes %s', (keys, text) => expect(type(energy, keys)).toBe(text));
  it.each([
    ['6', '1', battery, null],
    ['61', '5', battery, 'Battery is at most 100 %: Next for another figure.'],
    ['61', '.', battery, 'Battery is in whole %.'],
    ['41.6', '3', energy, 'Delivered takes 1 after the point.'],
    ['41.', '3', energy, null],
    ['41.6', '.', energy, 'There is a point already.'],
    ['999', '9', energy, 'Delivered is at most 999 kWh: Next for another figure.'],
    ['', '.', energy, null],
    ['0', '0', energy, null],
  ] as const)('%s and then %s: nothing goes by unseen', (text, digit, field, why) => expect(notTaken(text, digit, field)).toBe(why));
});
