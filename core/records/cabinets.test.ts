import { idOf } from '../visit/fixtures/story';
import { byCabinet } from './cabinets';
import { recordItem } from './record-schema';

const stall = (name: string, more: object = {}) =>
  recordItem('stall', idOf(name.charCodeAt(0)), { siteId: idOf(1), name, outlets: [{ connector: 'CCS2', ratedKW: 150 }], ...more } as never);
const told = (...stalls: ReturnType<typeof stall>[]) => byCabinet(stalls).map((g) => [g.stalls.map((s) => s.fields.name).join(''), g.text]);

describe('stalls on their cabinets', () => {
  // "a pair on one 150 kW cabinet: 150 kW alone, 75 kW each when both charge": common practice, no source.
  it('a pair that shares, a pair for one car at a time, stalls of their own', () =>
    expect(
      told(
        stall('1', { cabinet: 'A', sharing: 'one at a time' }),
        stall('2', { cabinet: 'A', sharing: 'one at a time' }),
        stall('3', { cabinet: 'B', sharing: 'shared', cabinetKW: 150 }),
        stall('4', { cabinet: 'B', sharing: 'shared' }),
        stall('5', { sharing: 'own' }),
        stall('6', { sharing: 'own' }),
      ),
    ).toEqual([
      ['12', 'one cabinet, one car at a time'],
      ['34', 'one cabinet, 150 kW between two'],
      ['56', 'own supply each'],
    ]));
  it('a cabinet that gives all its plates at once is only said to be shared', () =>
    expect(told(stall('1', { cabinet: 'A', sharing: 'shared', cabinetKW: 300 }), stall('2', { cabinet: 'A', sharing: 'shared' }))).toEqual([
      ['12', 'one cabinet, shared by two'],
    ]));
  it('finds its stalls when another stands between', () =>
    expect(told(stall('1', { cabinet: 'A', sharing: 'shared' }), stall('2'), stall('3', { cabinet: 'A' })).map(([s]) => s)).toEqual(['13', '2']));
  it('says nothing where nothing is noted', () => expect(told(stall('1'))).toEqual([['1', '']]));
});
