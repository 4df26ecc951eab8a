import { recordItem } from '../records/record-schema';
import type { RecordType } from '../records/record-types';
import { idOf } from '../visit/fixtures/story';
import { addedTo, twinOf, withIds } from './twin-record';

type Said = Parameters<typeof recordItem<'site'>>[2];
const here = (type: RecordType, id: number, said: object, archived = false) => ({ ...recordItem(type, idOf(id), said as never), archived });
const site = (said: Partial<Said> = {}) => ({ networkId: idOf(1), name: 'Lipa Barn', zone: 'UTC', ...said }) as Said;
const stall = (said: object = {}) => ({ siteId: idOf(2), name: '4', outlets: [{ connector: 'CCS2', ratedKW: 150 }], ...said });
const plan = (said: object = {}) => ({ networkId: idOf(1), name: 'Member', monthlyFee: '5.00', currency: 'EUR', from: '2025-01-01', ...said });
const price = (said: object = {}) => ({ networkId: idOf(1), currency: 'EUR', perKWh: '0.50', startFee: '0', validFrom: '2025-01-01', ...said });
const fields = (type: RecordType, said: object) => recordItem(type, idOf(99), said as never).fields as Record<string, unknown>;
const twin = (type: RecordType, said: object, all: ReturnType<typeof here>[], claimed: number[] = []) =>
  twinOf(type, fields(type, said), all, new Set(claimed.map(idOf)))?.id ?? null;

describe('the record here that one of a file is, under another id', () => {
  it.each([
    ['network', { name: 'Blue barn' }, { name: 'blue  BARN' }, { name: 'Bluebarn' }],
    ['provider', { name: 'Ferrywell' }, { name: 'ferrywell' }, { name: 'Ferry well' }],
    ['site', site(), site({ name: 'lipa barn', entrance: 'x' }), site({ networkId: idOf(7) })],
    ['site', site({ latitude: 46, longitude: 14 }), site({ latitude: 46.008, longitude: 14 }), site({ latitude: 46.01, longitude: 14 })],
    ['site', site({ latitude: 46, longitude: 14 }), site(), site({ name: 'Lipa' })],
    ['plan', plan(), plan({ monthlyFee: '9.99' }), plan({ name: 'Guest' })],
    ['plan', plan(), plan({ name: 'member' }), plan({ networkId: idOf(7) })],
    ['stall', stall(), stall({ model: 'Post 9' }), stall({ siteId: idOf(7) })],
    ['stall', stall({ evseUids: ['SI*BLU*E4'] }), stall({ name: 'Four', evseUids: ['x', 'si*blu*e4'] }), stall({ name: 'Four', evseUids: ['SI*BLU*E5'] })],
    ['tariff', price(), price({}), price({ perKWh: '0.51' })],
    ['tariff', price(), price({ siteId: null }), price({ siteId: idOf(2) })],
  ] as const)('%s %#', (type, known, same, other) => {
    const all = [here(type, 20, known)];
    expect([twin(type, same, all), twin(type, other, all)]).toEqual([idOf(20), null]);
  });
  it('is one that was put away where none is in use, none that another of the file is, and none of several', () => {
    const all = [
      here('site', 20, site()),
      here('site', 21, site({ name: 'Old barn' }), true),
      here('site', 22, site({ name: 'Two' })),
      here('site', 23, site({ name: 'two' })),
    ];
    expect(twin('site', site(), all, [20])).toBeNull();
    expect(twin('site', site({ name: 'Old barn' }), all)).toBe(idOf(21));
    expect(twin('site', site({ name: 'Old barn' }), [...all, here('site', 24, site({ name: 'Old barn' }))])).toBe(idOf(24));
    expect(twin('site', site({ name: 'Old barn' }), [...all, here('site', 24, site({ name: 'Old barn' }), true)])).toBeNull();
    expect(twin('site', site({ name: 'Two' }), all)).toBeNull();
    expect(twin('site', site({ name: 'Two' }), all, [22])).toBe(idOf(23));
    const car = { name: 'Heron 62', usableKWh: 62, connectors: ['CCS2'] };
    expect(twin('car', car, [here('car', 20, car)])).toBeNull();
  });
});

it('what a record refers to gets the id that is here; what a network or a driver said stays', () => {
  const same = new Map([['a', 'A']]);
  const said = { evseUids: ['a'], fromFile: { document: { id: 'a', siteId: 'a' } }, note: 'a', n: 1, yes: true };
  expect(withIds({ siteId: 'a', moreSiteIds: ['a', 'b'], planId: null, ...said }, same)).toEqual({
    siteId: 'A',
    moreSiteIds: ['A', 'b'],
    planId: null,
    ...said,
  });
});

it('what is blank in a file takes nothing away; what is blank here is added; what both say otherwise differs', () => {
  expect(addedTo({ a: null, b: 'x', c: [], d: 'same', e: 'kept', f: 1 }, { a: 'A', b: 'y', c: ['C'], d: 'same', e: null, f: [], g: 'new' })).toEqual({
    adds: { a: 'A', c: ['C'], g: 'new' },
    differs: ['b'],
  });
  expect(addedTo({ name: 'Lipa  Barn' }, { name: 'LIPA barn' })).toEqual({ adds: {}, differs: [] });
  expect(addedTo({ name: '4' }, { name: 'Four' })).toEqual({ adds: {}, differs: ['name'] });
  expect(addedTo({ emergencyNumber: null, helpline: null }, { emergencyNumber: '0900 1', helpline: '080 1' })).toEqual({
    adds: { helpline: '080 1' },
    differs: ['emergencyNumber'],
  });
});
