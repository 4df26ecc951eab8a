import type { VisitRow } from '@/core/compare/visit-row';
import { forgetRows, keepRows, keptRows } from './kept-rows';

const row = (attempts = 1): VisitRow => ({ siteId: 's', attempts: Array.from({ length: attempts }, () => ({ outcome: 'power' })) }) as unknown as VisitRow;
const at = { epoch: 'first', rev: 5 };

describe('visits kept in memory', () => {
  afterEach(() => ['a', 'b', 'c', 'ab'].forEach(forgetRows));

  it('are given for the same question of the same household, until something is written or the ledger is restored', () => {
    const rows = keepRows('a', 'all', at, [row()]);
    expect(keptRows('a', 'all', at)).toBe(rows);
    expect(keptRows('a', 'some', at)).toBeNull();
    expect(keptRows('b', 'all', at)).toBeNull();
    expect(keptRows('a', 'all', { ...at, rev: 6 })).toBeNull();
    expect(keptRows('a', 'all', { ...at, rev: 4 })).toBeNull();
    expect(keptRows('a', 'all', { ...at, epoch: 'second' })).toBeNull();
    const later = keepRows('a', 'all', { ...at, rev: 6 }, [row(), row()]);
    expect(keptRows('a', 'all', { ...at, rev: 6 })).toBe(later);
  });
  it('are changed by nobody', () => {
    const rows = keepRows('a', 'all', at, [row()]) as VisitRow[];
    expect(() => rows.pop()).toThrow(TypeError);
    expect(() => Object.assign(rows[0] as VisitRow, { siteId: 'other' })).toThrow(TypeError);
    expect(() => rows[0]?.attempts.pop()).toThrow(TypeError);
    expect(() => Object.assign(rows[0]?.attempts[0] ?? {}, { outcome: 'failed' })).toThrow(TypeError);
  });
  it('are forgotten with their household, and no other’s are', () => {
    for (const [household, question] of [
      ['a', 'all'],
      ['a', 'some'],
      ['ab', 'all'],
    ] as const)
      keepRows(household, question, at, [row()]);
    forgetRows('a');
    expect(['all', 'some'].map((q) => keptRows('a', q, at))).toEqual([null, null]);
    expect(keptRows('ab', 'all', at)).toHaveLength(1);
  });
  it('the longest unasked go first, when there are too many with their attempts', () => {
    for (const household of ['a', 'b']) keepRows(household, 'all', at, Array(10_000).fill(row(3)));
    expect(keptRows('a', 'all', at)).toHaveLength(10_000);
    keepRows('c', 'all', at, Array(10_000).fill(row(3)));
    expect(['a', 'b', 'c'].map((h) => keptRows(h, 'all', at) !== null)).toEqual([true, false, true]);
    // More than there is room for is given, and not kept.
    expect(keepRows('b', 'all', at, Array(50_000).fill(row()))).toHaveLength(50_000);
    expect(keptRows('b', 'all', at)).toBeNull();
  });
});
