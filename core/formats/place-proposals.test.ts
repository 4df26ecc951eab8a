import { recordItem } from '../records/record-schema';
import { idOf } from '../visit/fixtures/story';
import { NO_ACCESS } from './location-access';
import type { StallIn } from './ocpi-locations';
import { isNews, type KnownSite, type PlaceProposal, placeNews, sameSite, stallFields } from './place-proposals';

const stall = (name: string, uids: string[] = [], more: Partial<StallIn> = {}): StallIn => ({
  name,
  otherName: null,
  evseUids: uids,
  state: null,
  outlets: [{ connector: 'CCS2', ratedKW: 150, maxA: 500, maxV: 920, phases: null, cable: 'tethered' }],
  ...more,
});
const known = (name: string, network: string, posts: [string, string[]][] = [], at: [number, number] | null = null): KnownSite => ({
  id: idOf(name.length + network.length * 50),
  network,
  fields: recordItem('site', idOf(1), { networkId: idOf(2), name, zone: 'UTC', latitude: at?.[0] ?? null, longitude: at?.[1] ?? null }).fields,
  stalls: posts.map(([post, evseUids], i) => ({
    id: idOf(300 + i),
    rev: 7,
    fields: recordItem('stall', idOf(300 + i), { siteId: idOf(1), name: post, evseUids, outlets: [{ connector: 'CCS2', ratedKW: 150 }] }).fields,
  })),
});
const file = (more: Partial<PlaceProposal> = {}): PlaceProposal => ({
  pointer: '',
  name: 'Lipa Barn',
  network: 'Bluebarn',
  zone: null,
  latitude: 45.9,
  longitude: 14.5,
  asks: [],
  better: null,
  note: null,
  hours: null,
  access: NO_ACCESS,
  stalls: [],
  ...more,
});

describe('a site of a file and those that are here', () => {
  it('is one by the id of a post before its name, and by its name in the same network before another', () => {
    const [a, b] = [known('Lipa Barn', 'Ferrywell'), known('lipa  BARN', 'Bluebarn')];
    const renamed = known('The old barn', 'Otterbrook', [['1', ['SI*BLU*E1']]]);
    expect(sameSite(file(), [a, b])).toBe(b);
    expect(sameSite(file({ network: null }), [a, b])).toBe(a);
    expect(sameSite(file({ stalls: [stall('9', ['si*blu*e1'])] }), [a, b, renamed])).toBe(renamed);
    expect(sameSite(file({ name: 'Elsewhere' }), [a, b, renamed])).toBeNull();
  });
  it('brings what is lacking and nothing else', () => {
    const here = known('Lipa Barn', 'Bluebarn', [
      ['North', ['SI*BLU*E1']],
      ['South', []],
    ]);
    const news = placeNews(file({ stalls: [stall('N', ['SI*BLU*E1', '77']), stall('south', ['SI*BLU*E2']), stall('East')] }), [here]);
    expect(news).toMatchObject({ same: here, position: true, moves: false });
    expect(news.stalls.map((s) => s.name)).toEqual(['East']);
    expect(news.uids).toEqual([
      { id: idOf(300), rev: 7, evseUids: ['SI*BLU*E1', '77'] },
      { id: idOf(301), rev: 7, evseUids: ['SI*BLU*E2'] },
    ]);
  });
  it('is no news where all of it is here; a position that is here moves only where that is asked', () => {
    const here = known('Lipa Barn', 'Bluebarn', [['North', ['E1']]], [45.9, 14.5]);
    expect(isNews(placeNews(file({ stalls: [stall('North', ['E1'])] }), [here]))).toBe(false);
    expect(isNews(placeNews(file({ latitude: null, longitude: null }), [here]))).toBe(false);
    expect(placeNews(file({ latitude: 46, asks: ['moved'] }), [here])).toMatchObject({ position: false, moves: true });
    expect(isNews(placeNews(file({ name: 'New' }), [here]))).toBe(true);
  });
  it('brings its hours where none are noted', () => {
    const here = known('Lipa Barn', 'Bluebarn', [], [45.9, 14.5]);
    expect(placeNews(file({ hours: '24 hours' }), [here]).hours).toBe(true);
    expect(isNews(placeNews(file({ hours: '24 hours' }), [here]))).toBe(true);
    expect(placeNews(file({ hours: '24 hours' }), [{ ...here, fields: { ...here.fields, openingHours: 'by day' } }]).hours).toBe(false);
    expect(placeNews(file(), [here]).hours).toBe(false);
    expect(placeNews(file({ name: 'New', hours: '24 hours' }), []).hours).toBe(true);
  });
  it('brings the way in and what is around where that is not noted', () => {
    const here = known('Lipa Barn', 'Bluebarn', [], [45.9, 14.5]);
    const access = { ...NO_ACCESS, entrance: 'on the street' };
    expect(placeNews(file({ access }), [here]).access).toEqual({ entrance: 'on the street' });
    expect(isNews(placeNews(file({ access }), [here]))).toBe(true);
    const noted = { ...here, fields: { ...here.fields, entrance: 'behind the barn' } };
    expect(isNews(placeNews(file({ access }), [noted]))).toBe(false);
    expect(placeNews(file({ name: 'New', access }), []).access).toEqual(access);
  });
  it('does not fill a post beyond the ids that it can hold', () => {
    const uids = Array.from({ length: 8 }, (_, i) => `E${i}`);
    expect(placeNews(file({ stalls: [stall('North', ['E0', 'E9'])] }), [known('Lipa Barn', 'Bluebarn', [['North', uids]])]).uids).toEqual([]);
  });
});

describe('a post of a file as a record', () => {
  it('is one that can be kept, whatever the network says', () => {
    const odd = stall(
      'x'.repeat(60),
      Array.from({ length: 12 }, (_, i) => `E${i}`),
      {
        otherName: 'SI*BLU*E1',
        state: 'not yet open',
        outlets: [
          { connector: 'Type 2', ratedKW: 0.4, maxA: 1, maxV: 10, phases: 2, cable: 'own cable' },
          ...Array.from({ length: 5 }, () => ({ connector: 'CCS2', ratedKW: 9999.99, maxA: 9999, maxV: 9999, phases: null, cable: 'tethered' as const })),
        ],
      },
    );
    const { fields } = recordItem('stall', idOf(5), stallFields(odd, idOf(1), '2025-10-15') as never);
    expect([fields.name.length, fields.evseUids.length, fields.outlets.length]).toEqual([40, 8, 4]);
    expect(fields.outlets[0]).toMatchObject({ ratedKW: 1, maxA: null, maxV: null, phases: null, cable: 'own cable' });
    expect(fields.outlets[1]).toMatchObject({ ratedKW: 4000, maxA: null, maxV: null });
    expect(fields.state).toMatchObject({ is: 'not yet open', seenOn: '2025-10-15' });
    expect(recordItem('stall', idOf(5), stallFields(stall('4'), idOf(1), '2025-10-15') as never).fields).toMatchObject({
      name: '4',
      otherName: null,
      state: null,
      outlets: [{ connector: 'CCS2', ratedKW: 150, maxA: 500, maxV: 920, phases: null, cable: 'tethered' }],
    });
  });
});
