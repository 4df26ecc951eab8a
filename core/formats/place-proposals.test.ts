import { recordItem } from '../records/record-schema';
import { idOf } from '../visit/fixtures/story';
import { geojsonIn } from './geojson';
import { locationsIn, type StallIn } from './ocpi-locations';
import { locationsOut } from './ocpi-out';
import { isNews, type PlaceProposal, placeNews, proposalOfGeo, proposalOfLocation, stallFields, withTwins } from './place-proposals';
import { type KnownSite, samePosts, sameSite, sameSites } from './same-place';
import { readJson } from './strict-json';

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
  archived: false,
  rev: 3,
  network,
  fields: recordItem('site', idOf(1), { networkId: idOf(2), name, zone: 'UTC', latitude: at?.[0] ?? null, longitude: at?.[1] ?? null }).fields,
  stalls: posts.map(([post, evseUids], i) => ({
    id: idOf(300 + i),
    rev: 7,
    archived: false,
    fields: recordItem('stall', idOf(300 + i), { siteId: idOf(1), name: post, evseUids, outlets: [{ connector: 'CCS2', ratedKW: 150 }] }).fields,
  })),
});
const file = (more: Partial<PlaceProposal> = {}): PlaceProposal => ({
  pointer: '',
  id: null,
  location: null,
  twins: false,
  name: 'Lipa Barn',
  network: 'Bluebarn',
  zone: null,
  latitude: 45.9,
  longitude: 14.5,
  asks: [],
  better: null,
  fields: {},
  document: null,
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
  it('is the nearest of its name and network; one that stands apart is another where the file has both, another network is written, or it is of another Location', () => {
    const at = (n: number, lat: number | null, more: Partial<KnownSite> = {}): KnownSite => ({
      ...known('Lipa Barn', 'Bluebarn', [], lat === null ? null : [lat, 14.5]),
      id: idOf(n),
      ...more,
    });
    // A hundredth of a degree is 1.1 km.
    const [here, near, far, unplaced] = [at(1, 45.9), at(2, 45.905), at(3, 46.2), at(4, null)];
    expect(sameSite(file({ latitude: 45.904 }), [here, near, far])).toBe(near);
    expect(sameSite(file({ latitude: 45.904 }), [near, here, far])).toBe(near);
    expect(sameSite(file(), [far, unplaced])).toBe(unplaced);
    expect(sameSite(file(), [far])).toBe(far);
    expect(sameSite(file({ latitude: null }), [far, here])).toBe(far);
    expect(sameSite(file({ twins: true }), [far])).toBeNull();
    expect(sameSite(file({ twins: true }), [far, near])).toBe(near);
    expect(sameSite(file({ network: 'Otterbrook' }), [far])).toBeNull();
    expect(sameSite(file({ network: 'Otterbrook' }), [near])).toBe(near);
    expect(sameSite(file({ network: null }), [far])).toBe(far);
    // Whatever belt of latitude it lies in; one without a place as well.
    for (const lat of [45.9, 45.9001, 45.895, 45.8999, -0.0001, 0.0001]) {
      const there = at(7, lat + 0.0045);
      expect(sameSite(file({ latitude: lat, twins: true }), [far, there])).toBe(there);
      expect(sameSite(file({ latitude: lat, twins: true }), [at(7, lat - 0.0045)])).not.toBeNull();
    }
    expect([sameSite(file({ twins: true }), [far, unplaced]), sameSite(file({ latitude: null, twins: true }), [far])]).toEqual([unplaced, far]);
    const away = at(5, 45.9, { archived: true });
    expect([sameSite(file(), [away, near]), sameSite(file(), [away])]).toEqual([near, away]);
    const from = (id: string) => {
      const document = JSON.stringify({ country_code: 'SI', party_id: 'BLU', id });
      return at(6, 45.9, { fields: { ...here.fields, fromFile: { format: 'OCPI', day: '2025-10-01', document } } });
    };
    expect(sameSite(file({ location: 'si*blu*7' }), [from('7')])).not.toBeNull();
    expect(sameSite(file({ location: 'si*blu*8' }), [from('7')])).toBeNull();
    expect(sameSite(file(), [from('7')])).not.toBeNull();
    expect(sameSite(file({ location: 'si*blu*8' }), [here])).toBe(here);
    expect(placeNews(file(), [away]).same).toBe(away);
    expect(isNews(placeNews(file(), [away]))).toBe(true);
  });
  it('and a file says of each whether others of its name and network stand apart', () => {
    const twins = (...all: Partial<PlaceProposal>[]) => withTwins(all.map(file)).map((p) => p.twins);
    expect(twins({}, { latitude: 46.2 }, { name: 'Elsewhere' })).toEqual([true, true, false]);
    expect(twins({}, { latitude: 45.905 })).toEqual([false, false]);
    expect(twins({ latitude: null }, {}, { latitude: 46.2 })).toEqual([true, true, true]);
    expect(twins({}, { latitude: 46.2, network: 'Otterbrook' }, { latitude: null })).toEqual([false, false, false]);
  });
  it('asks one thing at most: a slip of the file before whether it was moved, and that only by where it is known here', () => {
    const here = known('Lipa Barn', 'Bluebarn', [], [45.9, 14.5]);
    const asks = (more: Partial<PlaceProposal>, all = [here]) => placeNews(file(more), all).asks;
    expect([asks({ asks: ['moved'] }), asks({ asks: ['moved'], latitude: 46.2 }), asks({ asks: ['moved'] }, [])]).toEqual([[], ['moved'], []]);
    expect([asks({ asks: ['far'], latitude: 46.2 }), asks({ asks: ['at_sea'] }, []), asks({ latitude: 46.2 }, [])]).toEqual([['far'], ['at_sea'], []]);
    expect(isNews(placeNews(file({ asks: ['far'] }), [here]))).toBe(false);
  });
  it('each of several of a file is a site of its own, the nearest first, and one by an id before one by its name', () => {
    const at = (n: number, lat: number | null, posts: [string, string[]][] = []): KnownSite => ({
      ...known('Lipa Barn', 'Bluebarn', posts, lat === null ? null : [lat, 14.5]),
      id: idOf(n),
    });
    const [here, unplaced] = [at(1, 45.9, [['1', ['e1']]]), at(2, null)];
    const of = (all: readonly KnownSite[], ...some: Partial<PlaceProposal>[]) => sameSites(some.map(file), all);
    const [a, b] = [{ latitude: 45.904, location: 'a' }, { location: 'b' }];
    expect(of([here], a, b)).toEqual([null, here]);
    expect(of([here, unplaced], a, b)).toEqual([unplaced, here]);
    expect(of([here], { ...a, stalls: [stall('1', ['e1'])] }, b)).toEqual([here, null]);
    expect(of([here], { ...b, id: here.id }, { ...a, id: here.id })).toEqual([here, here]);
    // Told twice, as features, it is the same; of another network it is not.
    expect(of([here], {}, { latitude: 45.904 })).toEqual([here, here]);
    expect(of([here], {}, { latitude: 45.904, network: 'Otterbrook' })).toEqual([here, null]);
    expect(of([here], { latitude: 45.904, network: 'Otterbrook' })).toEqual([here]);
    expect(of([here], {}, { latitude: null })).toEqual([here, here]);
    expect(of([here], { twins: true }, { latitude: null, twins: true })).toEqual([here, null]);
    // In the network of its name first.
    const other = { ...at(3, 45.9), network: 'Otterbrook' };
    expect(of([here, other], { network: 'Otterbrook' })).toEqual([other]);
    expect(of([here, { ...other, network: null }], { network: 'Otterbrook' })).toEqual([{ ...other, network: null }]);
  });
  it('of posts of several sites it is the first that has one', () => {
    const [a, b] = [known('A', 'Bluebarn', [['1', ['e1']]]), known('B', 'Bluebarn', [['1', ['e2']]])];
    expect(sameSite(file({ stalls: [stall('x', ['e2']), stall('y', ['e1'])] }), [a, b])).toBe(a);
    expect(sameSite(file({ stalls: [stall('x', ['e2']), stall('y', ['e1'])] }), [{ ...a, archived: true }, b])).toBe(b);
  });
  it('an id of a post is no other network’s elsewhere', () => {
    const theirs = known('Theirs', 'Otterbrook', [['1', ['77']]], [46.2, 14.5]);
    const ours = known('Ours', 'Bluebarn', [['1', ['77']]], [45.905, 14.5]);
    const p = file({ stalls: [stall('1', ['77'])] });
    expect([sameSite(p, [theirs]), sameSite(p, [theirs, ours]), sameSite({ ...p, network: null }, [theirs])]).toEqual([null, ours, theirs]);
    expect(sameSite({ ...p, latitude: 46.2 }, [theirs, ours])).toBe(theirs);
    expect(sameSite({ ...p, network: 'otterbrook' }, [theirs])).toBe(theirs);
  });
  it('each post of it is one here at most: two of one name are two', () => {
    const { stalls } = known('Lipa Barn', 'Bluebarn', [
      ['1', ['a']],
      ['1', []],
      ['3', []],
    ]);
    const pairs = (...theirs: StallIn[]) => [...samePosts(theirs, stalls)].map(([i, o]) => [i, stalls.indexOf(o)]);
    expect(pairs(stall('1', ['b']), stall('1', ['A']), stall('1', ['c']))).toEqual([
      [1, 0],
      [0, 1],
    ]);
    expect(pairs(stall('3', ['a']), stall('4'))).toEqual([[0, 0]]);
  });
  it('brings what is lacking and nothing else', () => {
    const here = known('Lipa Barn', 'Bluebarn', [
      ['North', ['SI*BLU*E1']],
      ['South', []],
    ]);
    const news = placeNews(file({ stalls: [stall('N', ['SI*BLU*E1', '77']), stall('south', ['SI*BLU*E2']), stall('East')] }), [here]);
    expect(news).toMatchObject({ same: here, position: true, asks: [] });
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
    expect(placeNews(file({ latitude: 46 }), [here])).toMatchObject({ position: false, asks: ['moved'] });
    expect(isNews(placeNews(file({ name: 'New' }), [here]))).toBe(true);
  });
  it('brings what its fields lack, and nothing of what is noted', () => {
    const here = known('Lipa Barn', 'Bluebarn', [], [45.9, 14.5]);
    const fields = { openingHours: '24 hours', entrance: 'on the street' };
    expect(placeNews(file({ fields }), [here]).fields).toEqual(fields);
    expect(isNews(placeNews(file({ fields }), [here]))).toBe(true);
    const noted = { ...here, fields: { ...here.fields, openingHours: 'by day' } };
    expect(placeNews(file({ fields }), [noted]).fields).toEqual({ entrance: 'on the street' });
    expect(isNews(placeNews(file({ fields: { openingHours: '24 hours' } }), [noted]))).toBe(false);
    expect(placeNews(file({ name: 'New', fields }), []).fields).toEqual(fields);
    expect(placeNews(file(), [here])).toMatchObject({ fields: {}, document: false });
  });
  it('brings what the file says beyond that, once, and again where it says something else', () => {
    const document = (text: string | null) => ({ format: 'OCPI' as const, text, lacks: 'nothing' as const });
    const here = known('Lipa Barn', 'Bluebarn', [], [45.9, 14.5]);
    const with_ = (text: string) => ({ ...here, fields: { ...here.fields, fromFile: { format: 'OCPI' as const, day: '2025-10-01', document: text } } });
    const news = (text: string | null, of: KnownSite) => [
      placeNews(file({ document: document(text) }), [of]),
      isNews(placeNews(file({ document: document(text) }), [of])),
    ];
    expect(news('{"x":1}', here)).toMatchObject([{ document: true }, true]);
    expect(news(null, here)).toMatchObject([{ document: false }, false]);
    expect(news('{"x":1}', with_('{"x":1}'))).toMatchObject([{ document: false }, false]);
    expect(news('{"x":1,"last_updated":"b"}', with_('{"x":1,"last_updated":"a"}'))).toMatchObject([{ document: false }, false]);
    expect(news('{"x":2}', with_('{"x":1}'))).toMatchObject([{ document: true }, true]);
    expect(placeNews(file({ name: 'New', document: document('{"x":1}') }), [])).toMatchObject({ document: true });
    expect(placeNews(file({ name: 'New', document: document(null) }), [])).toMatchObject({ document: false });
  });
  it('that went out of here is that site, whatever its posts are called, and no news unless somebody added to it', () => {
    const [other, here] = [known('Lipa Barn', 'Bluebarn', [], [45.9, 14.5]), known('The old barn', 'Bluebarn', [['North', []]], [45.9, 14.5])];
    const [wentOut] = locationsOut([here], 1000).data;
    const own = (more: object = {}) =>
      file({
        id: here.id,
        stalls: [stall('renamed', [idOf(300)])],
        document: { format: 'OCPI', text: JSON.stringify({ ...wentOut, last_updated: 'later', ...more }), lacks: 'nothing' },
      });
    expect(placeNews(own(), [other, here]).same).toBe(here);
    expect(isNews(placeNews(own(), [other, here]))).toBe(false);
    // What somebody added to it is kept; the same words of another site are news.
    expect(placeNews(own({ x_ramp: true }), [other, here]).document).toBe(true);
    expect(placeNews({ ...own(), id: idOf(999) }, [other, here]).document).toBe(true);
    // An id that the network gave beside ours is kept.
    const more = placeNews({ ...own(), stalls: [stall('North', [idOf(300), 'E1'])] }, [other, here]);
    expect([more.uids, more.stalls]).toEqual([[{ id: idOf(300), rev: 7, evseUids: ['E1'] }], []]);
    expect(sameSite(file({ id: idOf(999) }), [other, here])).toBe(other);
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

describe('a site of GeoJSON', () => {
  const feature = (properties: object, more: object = {}) => {
    const text = JSON.stringify({
      type: 'Feature',
      id: 'a',
      geometry: { type: 'Point', coordinates: [14.5, 46] },
      properties: { name: 'Lipa Barn', ...properties },
      ...more,
    });
    const json = readJson(new TextEncoder().encode(text));
    if (!json.ok) throw new Error(json.code);
    const { sites, documents } = geojsonIn(json.value, [], () => false);
    const p = proposalOfGeo(sites[0] as never, documents.get('') as never);
    return [p.fields, p.document && JSON.parse(p.document.text ?? 'null')];
  };
  it('fills the fields that its properties are called as, and is kept whole where it says anything else', () => {
    expect(feature({ network: 'Bluebarn', zone: 'UTC' })).toEqual([{}, null]);
    expect(feature({ entrance: ' by the barn ', bins: true, maxStay_min: 90, meansAccepted: ['app'], helpline: null })).toEqual([
      { entrance: 'by the barn', bins: true, maxStay_min: 90, meansAccepted: ['app'] },
      null,
    ]);
    expect(feature({ note: `${'long '.repeat(250)}end` })[0]).toEqual({ note: 'long '.repeat(200).trim() });
    expect(feature({ bins: 'yes' })).toMatchObject([{}, { id: 'a', properties: { bins: 'yes' } }]);
    expect(feature({ entrance: 'by the barn', colour: 'red' })).toMatchObject([
      { entrance: 'by the barn' },
      { properties: { entrance: 'by the barn', colour: 'red' } },
    ]);
    expect(feature({ colour: null })).toEqual([{}, null]);
    expect(feature({}, { x_more: 1 })).toMatchObject([{}, { x_more: 1 }]);
    expect(feature({}, { bbox: [1, 2, 3, 4] })).toEqual([{}, null]);
    expect(feature({}, { geometry: { type: 'Point', coordinates: [14.5, 46, 300] } })).toMatchObject([{}, { geometry: { coordinates: [14.5, 46, 300] } }]);
    expect(feature({}, { geometry: { type: 'Point', coordinates: [14.5, 46], x_by: 'hand' } })).toMatchObject([{}, { geometry: { x_by: 'hand' } }]);
  });
  it('says nothing of itself by the names that are a site’s own, nor by those that every object has', () => {
    const photos = [{ sha256: 'a'.repeat(64), text: null }];
    const fromFile = { format: 'OCPI', day: '2025-01-01', document: '{}' };
    expect(feature({ photos, fromFile, networkId: idOf(1), emergencyNumber: '0900 1', toString: 'x', constructor: 'y' })[0]).toEqual({});
  });
});

describe('a site of a network’s file', () => {
  const location = (more: object = {}) => {
    const text = JSON.stringify({
      country_code: 'SI',
      party_id: 'BLU',
      id: 'L1',
      publish: true,
      name: ' Lipa Barn ',
      address: 'Barn 1',
      city: 'Lipa',
      country: 'SVN',
      coordinates: { latitude: '45.90000', longitude: '14.55000' },
      time_zone: 'Europe/Ljubljana',
      last_updated: '2026-01-01T00:00:00Z',
      ...more,
    });
    const json = readJson(new TextEncoder().encode(text));
    if (!json.ok) throw new Error(json.code);
    const { sites, access, documents } = locationsIn(json.value);
    return proposalOfLocation(sites[0] as never, access.get('') as never, documents.get('') as never);
  };
  it('fills what it says, and is kept whole', () => {
    const p = location({ opening_times: { twentyfourseven: true }, facilities: ['CAFE'] });
    expect(p).toMatchObject({ pointer: '', name: 'Lipa Barn', network: 'SI*BLU', zone: 'Europe/Ljubljana', latitude: 45.9, longitude: 14.55 });
    expect([p.asks, p.better, p.stalls, p.fields]).toEqual([[], null, [], { food: 'cafe', openingHours: '24 hours' }]);
    expect([p.document?.format, JSON.parse(p.document?.text ?? '').address]).toEqual(['OCPI', 'Barn 1']);
    expect(location().fields).toEqual({});
    // OCPI 2.2.1: 255 letters for a name, 100 for an operator's (from memory). A blank one is none.
    const long = location({ name: ` ${'S'.repeat(79)} ${'T'.repeat(100)}`, operator: { name: ` ${'N'.repeat(95)}` } });
    expect([long.name, long.network]).toEqual(['S'.repeat(79), 'N'.repeat(80)]);
    const blank = location({ name: ' ', operator: { name: '  ' } });
    expect([blank.name, blank.network, location({ operator: { name: 'Bluebarn' } }).network]).toEqual(['Barn 1', 'SI*BLU', 'Bluebarn']);
    expect([p.id, p.location, p.twins]).toEqual([location().id, `si*blu*${String(location().id).toLowerCase()}`, false]);
  });
});

it('is news by any one thing that is new', () => {
  const here = known('Lipa Barn', 'Bluebarn', [['North', ['E1']]], [45.9, 14.5]);
  const news = (more: Partial<PlaceProposal>) => isNews(placeNews(file(more), [here]));
  expect([news({}), news({ stalls: [stall('South')] }), news({ stalls: [stall('North', ['E1', 'E2'])] }), news({ latitude: null })]).toEqual([
    false,
    true,
    true,
    false,
  ]);
  const unplaced = known('Lipa Barn', 'Bluebarn');
  expect([file(), file({ latitude: null }), file({ longitude: null })].map((p) => placeNews(p, [unplaced]).position)).toEqual([true, false, false]);
  expect(placeNews(file({ name: 'New' }), [])).toMatchObject({ asks: [], uids: [], position: true });
});

it.each([
  [5, 50, 1],
  [4000, 1500, 3],
  [4, 49, 2],
  [4001, 1501, null],
])('%d A, %d V and %s phases of a post are kept where a record can say them', (maxA, maxV, phases) => {
  const outlet = { connector: 'Type 2', ratedKW: 22, maxA, maxV, phases, cable: 'own cable' as const };
  const post = stall('4', [], { otherName: 'y'.repeat(50), state: 'not yet open', outlets: [outlet] });
  const can = maxA === 5 || maxA === 4000;
  expect(stallFields(post, idOf(1), '2025-10-15')).toMatchObject({
    otherName: 'y'.repeat(40),
    state: { by: 'the network' },
    outlets: [{ maxA: can ? maxA : null, maxV: can ? maxV : null, phases: can ? phases : null }],
  });
});
