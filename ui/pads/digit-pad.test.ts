import { type DigitField, isFull, pressDigit } from './digit-pad';

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
  it('moves on by itself only when no further digit could fit', () => {
    expect([isFull('6', battery), isFull('61', battery), isFull('10', battery), isFull('100', battery)]).toEqual([false, true, false, true]);
    expect([isFull('41', energy), isFull('41.6', energy)]).toEqual([false, true]);
  });
});
