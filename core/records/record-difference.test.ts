import fc from 'fast-check';
import { recordDifference, settleDifference } from './record-difference';

describe('two versions of a record', () => {
  const base = { name: '4', note: null, outlets: [{ kW: 150 }] };
  it('differ field by field; what I left alone is proposed as theirs', () => {
    const mine = { ...base, note: 'wasps in the holster' };
    const theirs = { ...base, name: '4 North', outlets: [{ kW: 100 }] };
    expect(recordDifference(mine, theirs, base)).toEqual([
      { field: 'name', mine: '4', theirs: '4 North', take: 'theirs' },
      { field: 'note', mine: 'wasps in the holster', theirs: null, take: 'mine' },
      { field: 'outlets', mine: [{ kW: 150 }], theirs: [{ kW: 100 }], take: 'theirs' },
    ]);
    expect(settleDifference(theirs, recordDifference(mine, theirs, base))).toEqual({ name: '4 North', note: 'wasps in the holster', outlets: [{ kW: 100 }] });
  });
  it('mine everywhere gives mine, theirs everywhere theirs', () => {
    const record = fc.record({ a: fc.jsonValue(), b: fc.jsonValue(), c: fc.jsonValue() });
    fc.assert(
      fc.property(record, record, (mine, theirs) => {
        const differences = recordDifference(mine, theirs);
        const all = (take: 'mine' | 'theirs') =>
          settleDifference(
            theirs,
            differences.map((d) => ({ ...d, take })),
          );
        expect(recordDifference(all('mine') as never, mine)).toEqual([]);
        expect(recordDifference(all('theirs') as never, theirs)).toEqual([]);
      }),
    );
  });
});
