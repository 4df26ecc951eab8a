import type { Field } from '@/core/records/form-field';
import { fromControl, toControl } from './form-fields';

const uses: Field = { kind: 'consumption', path: 'kWhPer100km', label: 'Usual consumption' };

describe('consumption in a form', () => {
  it.each([
    ['kWh/100 km', '18.5', 18.5],
    ['Wh/km', '185', 18.5],
    ['mi/kWh', '3,5', 17.753],
    ['km/kWh', '6.25', 16],
  ] as const)('in %s, %s typed, is %d kWh for 100 km, and stands there again as it was typed', (unit, typed, kept) => {
    expect(fromControl(uses, typed, {}, unit)).toBe(kept);
    expect(toControl(uses, kept, {}, unit)).toBe(typed.replace(',', '.'));
  });
  it('is nothing where nothing is typed, and no figure where none is', () => {
    expect(['', ' ', 'x', '0', '-3'].map((typed) => fromControl(uses, typed, {}, 'mi/kWh'))).toEqual([null, null, Number.NaN, 0, -3]);
    expect([null, undefined, 0].map((kept) => toControl(uses, kept, {}, 'mi/kWh'))).toEqual(['', '', '']);
  });
});
