import { billPlaces } from './bill-place';
import { type JsonObject, readJson } from './strict-json';

const site = (id: string, name: string, latitude: number | null = null) => ({ id, fields: { name, latitude, longitude: latitude === null ? null : 14.5 } });
const stall = (siteId: string, name: string, ...evseUids: string[]) => ({ fields: { siteId, name, evseUids } });
const record = (cdr_location: unknown): JsonObject => {
  const read = readJson(new TextEncoder().encode(JSON.stringify({ cdr_location })));
  if (!read.ok) throw new Error(read.code);
  return read.value as JsonObject;
};
const at = (latitude: unknown, more: object = {}) => record({ coordinates: { latitude, longitude: '14.5' }, ...more });

describe('where a CDR was', () => {
  const sites = [site('a', 'Lipa Barn', 46), site('b', 'Vrba Crossing', 46.1), site('c', 'Unplaced')];
  const stalls = [stall('a', '4', 'SI*BLU*E1', '77'), stall('b', '2', 'SI*SMR*E1'), stall('b', '3', 'shared'), stall('a', '3', 'shared')];
  const of = (written: string, evse = '', of?: JsonObject) => billPlaces(sites, stalls)({ site: written, evse }, of);

  it('is as it is written where a site is called so; the post is known by its id', () => {
    expect(of('LIPA  barn')).toEqual({ site: 'LIPA  barn', stall: null });
    expect(of('Lipa Barn', 'si*smr*e1')).toEqual({ site: 'Lipa Barn', stall: '2' });
  });
  it('else it is the site of that post, by either id that the network gives', () => {
    expect(of('Barn at the lime', 'SI*BLU*E1')).toEqual({ site: 'Lipa Barn', stall: '4' });
    expect(of('Barn at the lime', '', record({ evse_uid: '77' }))).toEqual({ site: 'Lipa Barn', stall: '4' });
    // An id of a network's own is that of another's post as well.
    expect(of('Barn at the lime', '', at('46.1', { evse_uid: '77' }))).toEqual({ site: 'Vrba Crossing', stall: null });
    expect(of('Barn at the lime', '', at('46.004', { evse_uid: '77' }))).toEqual({ site: 'Lipa Barn', stall: '4' });
    // An id that posts of two sites have tells neither.
    expect(of('Barn at the lime', 'shared')).toEqual({ site: 'Barn at the lime', stall: '3' });
    expect(of('Barn at the lime', 'SI*BLU*E1', record({ evse_uid: 'SI*SMR*E1' }))).toEqual({ site: 'Barn at the lime', stall: null });
  });
  it('else the one where it says that it was, if it is by itself there', () => {
    // A thousandth of a degree of latitude is 111 m on the mean sphere.
    expect(of('x', '', at('46.0026')).site).toBe('Lipa Barn');
    expect(of('x', '', at('46.0028')).site).toBe('x');
    expect(of('x', '', at('46.1')).site).toBe('Vrba Crossing');
    for (const odd of [46, 'north', null, '']) expect(of('x', '', at(odd)).site).toBe('x');
    expect(of('Barn', 'SI*BLU*E1', record({ coordinates: { latitude: '50' } }))).toEqual({ site: 'Lipa Barn', stall: '4' });
    expect(of('Barn', 'SI*BLU*E1', record({ coordinates: { longitude: '50' } }))).toEqual({ site: 'Lipa Barn', stall: '4' });
    expect(of('x', '', record(null)).site).toBe('x');
    expect(of('x', '', record({ coordinates: '46.0, 14.5' })).site).toBe('x');
    const two = billPlaces([...sites, site('d', 'Beside it', 46.008)], []);
    expect(two({ site: 'x', evse: '' }, at('46.0')).site).toBe('x');
    expect(billPlaces([...sites, site('d', 'Beside it', 46.0095)], [])({ site: 'x', evse: '' }, at('46.0')).site).toBe('Lipa Barn');
  });
});
