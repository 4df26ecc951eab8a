import { type MileRecord, recordItem } from '@/core/records/record-schema';
import { forgetRecords, keepRecords, keptRecords } from './kept-records';

const network = (n: number, rev: number, name = `N${n}`): MileRecord => {
  const { type, id, fields } = recordItem('network', `01900000-0000-7000-8000-00000000000${n}`, { name });
  return { type, id, rev, archived: false, fields } as MileRecord;
};
const names = (records: readonly MileRecord[] | null) => records?.map((r) => (r.fields as { name: string }).name);

describe('records kept in memory', () => {
  const household = 'somebody';
  const keep = (since: number, fresh: readonly MileRecord[], epoch = 'first') => names(keepRecords(household, 'network', epoch, since, fresh));
  afterEach(() => forgetRecords(household));

  it('go on from where they were: a changed one stands once, last', () => {
    expect(keep(-1, [network(1, 3), network(2, 3)])).toEqual(['N1', 'N2']);
    expect(keptRecords(household, 'network')?.rev).toBe(3);
    expect(keep(3, [network(1, 5, 'N1 anew'), network(3, 6)])).toEqual(['N2', 'N1 anew', 'N3']);
    expect(keep(6, [])).toEqual(['N2', 'N1 anew', 'N3']);
    expect(keptRecords(household, 'network')?.rev).toBe(6);
  });
  it('of two that read at once the slower one puts back nothing', () => {
    keep(-1, [network(1, 3), network(2, 3)]);
    keep(3, [network(1, 5, 'N1 anew')]);
    expect(keep(-1, [network(1, 3), network(2, 3)])).toEqual(['N2', 'N1 anew']);
    expect(keptRecords(household, 'network')?.rev).toBe(5);
  });
  it('nothing goes on from what is not kept, or from before a restore', () => {
    expect(keepRecords(household, 'network', 'first', 3, [network(1, 5)])).toBeNull();
    expect(keptRecords(household, 'network')).toBeUndefined();
    keep(-1, [network(1, 3), network(2, 4)]);
    expect(keepRecords(household, 'network', 'second', 4, [])).toBeNull();
    // Restored from before N2, and less far than what was kept.
    expect(keep(-1, [network(1, 3)], 'second')).toEqual(['N1']);
    expect(keptRecords(household, 'network')).toMatchObject({ epoch: 'second', rev: 3 });
  });
  it('what was read after more than is kept is not laid upon it: what lies between would be missing', () => {
    keep(-1, [network(1, 3)]);
    expect(keepRecords(household, 'network', 'first', 7, [network(2, 8)])).toBeNull();
    expect(keptRecords(household, 'network')?.rev).toBe(3);
  });
  it('are of one household and one type', () => {
    keep(-1, [network(1, 3)]);
    expect(keptRecords('somebody else', 'network')).toBeUndefined();
    expect(keptRecords(household, 'site')).toBeUndefined();
    forgetRecords(household);
    expect(keptRecords(household, 'network')).toBeUndefined();
  });
  it('are changed by nobody, nor is their list, which stays the same until something is written', () => {
    const list = keepRecords(household, 'network', 'first', -1, [network(1, 3), network(2, 3)]) as MileRecord[];
    const [first] = list;
    expect(() => Object.assign(first?.fields ?? {}, { name: 'X' })).toThrow(TypeError);
    expect(() => list.reverse()).toThrow(TypeError);
    expect(keepRecords(household, 'network', 'first', 3, [])).toBe(list);
    expect(names(keepRecords(household, 'network', 'first', 3, [network(3, 4)]))).toEqual(['N1', 'N2', 'N3']);
    expect(names(list)).toEqual(['N1', 'N2']);
  });
  it('the longest unasked go first, when there are too many', () => {
    const one = network(1, 1);
    const many = (n: number) => Array.from({ length: n }, (_, i) => ({ ...one, id: String(i) }));
    keepRecords('a', 'network', 'first', -1, many(15_000));
    keepRecords('b', 'network', 'first', -1, many(15_000));
    expect(keptRecords('a', 'network')?.records.size).toBe(15_000);
    keepRecords('c', 'network', 'first', -1, many(15_000));
    expect(['a', 'b', 'c'].map((h) => keptRecords(h, 'network') !== undefined)).toEqual([true, false, true]);
    // More than there is room for is given, and not kept.
    expect(keepRecords('b', 'network', 'first', -1, many(40_001))).toHaveLength(40_001);
    expect(keptRecords('b', 'network')).toBeUndefined();
    // Nor does what is kept grow past it.
    expect(
      keepRecords(
        'c',
        'network',
        'first',
        1,
        many(30_000).map((r) => ({ ...r, id: `n${r.id}`, rev: 2 })),
      ),
    ).toHaveLength(45_000);
    expect(keptRecords('c', 'network')).toBeUndefined();
    for (const h of ['a', 'b', 'c']) forgetRecords(h);
    // Small ones that grow count as what they have become.
    for (const h of ['a', 'b', 'c']) keepRecords(h, 'network', 'first', -1, many(1));
    for (const h of ['a', 'b', 'c'])
      keepRecords(
        h,
        'network',
        'first',
        1,
        many(15_000).map((r) => ({ ...r, rev: 2 })),
      );
    expect(['a', 'b', 'c'].map((h) => keptRecords(h, 'network') !== undefined)).toEqual([false, true, true]);
    for (const h of ['a', 'b', 'c']) forgetRecords(h);
  });
});
