import { finish } from '../units/steps';
import { planRows } from './sheet-plan';
import type { SheetRow } from './sheet-row';

const row = (line: number, more: Partial<SheetRow> = {}): SheetRow => ({
  line,
  start: 0,
  startPrecision: 'min',
  end: null,
  site: 'Vrba Crossing',
  stall: null,
  network: null,
  car: null,
  kWh: '10',
  amount: '5',
  currency: 'EUR',
  perKWh: null,
  minutes: null,
  handshake_s: null,
  socFrom: null,
  socTo: null,
  means: null,
  note: null,
  rest: {},
  warnings: [],
  ...more,
});
const known = {
  site: ({ site }: SheetRow) => (site === 'Vrba Crossing' ? 'here' : site === 'Twin' ? 'several' : null),
  there: new Set<number>(),
  near: new Set<number>(),
};
const twice = { code: 'duplicate', column: null, lines: [2, 3, 4], options: ['same', 'different'] };
const plan = (rows: SheetRow[], ...rest: Partial<[Parameters<typeof planRows>[1], Parameters<typeof planRows>[2], Partial<typeof known>]>) =>
  [...finish(planRows(rows, rest[0] ?? [], rest[1] ?? [], { ...known, ...rest[2] })).values()].join(' ');

describe('what becomes of the rows of a sheet', () => {
  it('a visit each, but for refunds, rows that tell of no charge, and sites nobody knows', () => {
    expect(plan([row(2), row(3, { amount: '-5' }), row(4, { kWh: null, amount: null }), row(5, { site: 'Elsewhere' })])).toBe('new refund nothing place');
    // A row may hold any number of cells, a visit may not; one with a note longer than any is taken by no other way either.
    expect(plan([row(2, { note: 'x'.repeat(2000) }), row(3, { note: 'x'.repeat(2001) }), row(4, { rest: { a: 'x'.repeat(30_000) } })])).toBe(
      'new too_long too_long',
    );
    // What came in before is there, whatever it tells.
    expect(plan([row(2), row(5, { site: 'Elsewhere' })], [], [], { there: new Set([2, 5]) })).toBe('there there');
    // Of several of one name nobody knows which, unless it is a visit that is recorded.
    const near = { near: new Set([3]) };
    expect(plan([row(2, { site: 'Twin' }), row(3, { site: 'Twin' })], [], [], near)).toBe('which near');
    expect(plan([row(3, { site: 'Twin' })], [], [{ code: 'near', answer: 'merge' }], near)).toBe('merge');
    expect(plan([row(3, { site: 'Twin' })], [], [{ code: 'near', answer: 'new' }], near)).toBe('which');
  });
  it('rows that may be one visit all wait; the same is taken once, different ones all', () => {
    const rows = [row(2), row(3), row(4), row(5)];
    expect(plan(rows, [twice])).toBe('twice twice twice new');
    expect(plan(rows, [twice], [{ code: 'duplicate', lines: [2, 3, 4], answer: 'same' }])).toBe('new same same new');
    expect(plan(rows, [twice], [{ code: 'duplicate', answer: 'different' }])).toBe('new new new new');
    // The last word counts, an answer about other lines is none, nor is one to another question.
    expect(
      plan(
        rows,
        [twice],
        [
          { code: 'duplicate', answer: 'different' },
          { code: 'duplicate', lines: [2], answer: 'same' },
        ],
      ),
    ).toBe('new same same new');
    expect(plan(rows, [twice], [{ code: 'duplicate', lines: [5], answer: 'same' }])).toBe('twice twice twice new');
    expect(plan(rows, [{ ...twice, code: 'time_twice' }])).toBe('new new new new');
  });
  it('a row that a recorded visit may be waits until somebody says that it is another, and for its twin before that', () => {
    const near = { near: new Set([2, 3]) };
    expect(plan([row(2), row(3)], [], [], near)).toBe('near near');
    expect(plan([row(2), row(3)], [], [{ code: 'near', lines: [2], answer: 'new' }], near)).toBe('new near');
    expect(plan([row(2), row(3)], [{ ...twice, lines: [2, 3] }], [{ code: 'near', lines: [2], answer: 'new' }], near)).toBe('twice twice');
    // Said of one and then of all, and of all and then of one.
    const [one, all] = [
      { code: 'near', lines: [2], answer: 'new' },
      { code: 'near', answer: 'merge' },
    ];
    expect(plan([row(2), row(3)], [], [one, all], near)).toBe('merge merge');
    expect(plan([row(2), row(3)], [], [all, one], near)).toBe('new merge');
  });
  it('a row that somebody says is a recorded visit comes beside it, where it says what was paid', () => {
    const near = { near: new Set([2, 3, 4]) };
    const said = [{ code: 'near', lines: [2, 3, 4, 5], answer: 'merge' }];
    const rows = [row(2), row(3, { amount: null, currency: null }), row(4, { amount: '0' }), row(5)];
    // One that nothing recorded may be stays a visit of its own.
    expect(plan(rows, [], said, near)).toBe('merge near merge new');
  });
});
