import { noLevel, printLevel, typedLevel, wrongLevels } from './typed-level';

describe('a level of the battery as it is typed', () => {
  it.each([
    ['20', 20],
    [' 62,5 ', 62.5],
    ['80 %', 80],
    ['0', 0],
    ['100', 100],
    ['100.1', null],
    ['-1', null],
    ['abc', null],
    ['1e9', null],
    ['Infinity', null],
    ['%', null],
    ['20 30', null],
    ['', undefined],
    ['  ', undefined],
    [undefined, undefined],
  ])('%j is %j', (text, level) => expect(typedLevel(text)).toBe(level));
  it('is read as it was typed; one that was worked out is whole', () => {
    expect([20.5, 80, 20.54, 100].map((pct) => printLevel(pct, [20.5, 80, 20.54, 100]))).toEqual(['20.5', '80', '20.5', '100']);
    expect([20.5, 90.4].map((pct) => printLevel(pct, [20, 80]))).toEqual(['21', '90']);
  });
  it('what is none is named', () => {
    expect(wrongLevels({ from: null, to: 0 })).toEqual(['from']);
    expect(wrongLevels({ from: undefined, to: null })).toEqual(['to']);
    expect(noLevel(['to'])).toBe('“to” is no level of the battery: a number from 0 to 100.');
    expect(noLevel(['from', 'to'])).toBe('“from” and “to” are no levels of the battery: a number from 0 to 100.');
  });
});
