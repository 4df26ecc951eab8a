import { configure, Uint8ArrayWriter, ZipWriter } from '@zip.js/zip.js';
import fc from 'fast-check';
import { unkeepable } from '../units/keepable-json';
import { IN, KW, story } from '../visit/fixtures/story';
import { ledgerBatches, openLedger, proposedPeople } from './ledger-file';

configure({ useWebWorkers: false });
const utf8 = (of: unknown) => new TextEncoder().encode(typeof of === 'string' ? of : JSON.stringify(of));
async function zipOf(entries: Record<string, unknown>): Promise<Uint8Array> {
  const zip = new ZipWriter(new Uint8ArrayWriter());
  for (const [name, content] of Object.entries(entries)) await zip.add(name, new Blob([utf8(content)]).stream());
  return zip.close();
}
const household = { id: '00000000-0000-7000-8000-000000000001', name: 'Kolar', currency: 'EUR', zone: 'Europe/Ljubljana' };
const ines = { personId: '00000000-0000-7000-8000-000000000002', name: 'Ines', role: 'owner' };
const head = { format: 'mile-ledger', version: 1, household, people: [ines], records: [], events: [] as unknown[] };
const events = story(IN, [10, 'plugged'], [40, 'power_seen', KW]);
const part = (list: unknown[], more = {}) => ({ format: 'mile-ledger-events', version: 1, events: list, ...more });
const refusal = async (bytes: Uint8Array) => {
  const read = await openLedger(bytes);
  return read.ok ? null : read.refused;
};
/** All of it, piece by piece. */
async function all(bytes: Uint8Array) {
  const read = await openLedger(bytes);
  if (!read.ok) throw new Error(JSON.stringify(read.refused));
  const out = [];
  for await (const piece of ledgerBatches(read.value)) out.push(piece.ok ? piece.value : piece.refused);
  return out;
}

describe('a ledger that was taken along', () => {
  it('comes in pieces: records, then the events of every part, then what names records', async () => {
    const [site, network] = [
      { type: 'site', id: '00000000-0000-7000-8000-00000000000a', archived: false, fields: { networkId: '00000000-0000-7000-8000-00000000000b' } },
      { type: 'network', id: '00000000-0000-7000-8000-00000000000b', archived: false, fields: { name: 'Bluebarn' } },
    ];
    const bytes = await zipOf({
      'ledger.json': {
        ...head,
        records: [site, network],
        parts: [
          { name: 'events-1.json', events: 2 },
          { name: 'events-2.json', events: 1 },
        ],
        watches: [{ id: 'w' }],
        views: [{ id: 'v' }],
        closed: [{ month: '2025-09' }],
      },
      'events-1.json': part(events.slice(0, 2)),
      'events-2.json': part(events.slice(2)),
    });
    const none = { records: [], events: [], watches: [], views: [], closed: [] };
    expect(await all(bytes)).toEqual([
      { ...none, records: [network, site] },
      { ...none, events: events.slice(0, 2) },
      { ...none, events: events.slice(2) },
      { ...none, watches: [{ id: 'w' }] },
      { ...none, views: [{ id: 'v' }] },
      { ...none, closed: [{ month: '2025-09' }] },
    ]);
  });
  it('what makes a visit private comes before the visit', async () => {
    const marked = story(IN, [10, 'plugged'], [20, 'mark', { as: 'private' }], [40, 'power_seen', KW]);
    const [piece] = await all(utf8({ ...head, events: [...marked, null, 7] }));
    expect(piece && 'events' in piece ? piece.events : []).toEqual([marked[2], marked[0], marked[1], marked[3], null, 7]);
  });
  it('no piece is more than a request takes; what is large by itself goes alone', async () => {
    const many = Array.from({ length: 900 }, (_, i) => ({ ...events[0], id: i, payload: { text: 'é'.repeat(i === 450 ? 700_000 : 10) } }));
    const pieces = await all(utf8({ ...head, events: many }));
    expect(pieces.map((p) => ('events' in p ? p.events.length : 0))).toEqual([400, 50, 1, 400, 49]);
  });
  it('is read as it was before there were zips: one file with all events in it', async () => {
    const old = { format: 'mile-ledger-household', version: 1, household, people: [ines], records: [], events };
    expect(await all(utf8(old))).toEqual([{ records: [], events, watches: [], views: [], closed: [] }]);
    expect(await all(utf8(`\ufeff  ${JSON.stringify({ ...old, format: 'mile-ledger' })}`))).toHaveLength(1);
    // Nothing of it has pictures.
    const read = await openLedger(new Blob([utf8(old)]));
    expect(read.ok && (await read.value.photo('f'.repeat(64)))).toEqual({ ok: true, value: null });
  });
  it('has its pictures beside it', async () => {
    const name = 'a'.repeat(64);
    const read = await openLedger(await zipOf({ 'ledger.json': { ...head, photos: [{ name, stored: 'b'.repeat(64) }] }, [`photos/${name}.jpg`]: 'picture' }));
    if (!read.ok) throw new Error();
    expect(await read.value.photo(name)).toEqual({ ok: true, value: utf8('picture') });
    expect(await read.value.photo('c'.repeat(64))).toEqual({ ok: true, value: null });
  });
  it('is read where its folder was put into a zip again, beside what a system keeps of its own', async () => {
    const name = 'a'.repeat(64);
    const again = {
      '__MACOSX/My ledger/._ledger.json': 'x',
      'My ledger/photos/.DS_Store': 'x',
      [`My ledger/photos/${name}.jpg`]: 'picture',
      'My ledger/events-1.json': part(events),
      'My ledger/ledger.json': { ...head, parts: [{ name: 'events-1.json', events: 3 }] },
    };
    const read = await openLedger(await zipOf(again));
    const photo = read.ok ? await read.value.photo(name) : null;
    expect([photo?.ok && photo.value?.length, (await all(await zipOf(again))).flatMap((b) => ('events' in b ? b.events : []))]).toEqual([7, events]);
    // Of two nobody knows which one is meant; one at the top is the one.
    const two = { ...again, 'Other/ledger.json': head };
    expect(await refusal(await zipOf(two))).toEqual({ of: 'ledger', code: 'not_a_ledger', entry: null });
    expect(await all(await zipOf({ ...two, 'ledger.json': head }))).toEqual([]);
  });
  it('fields that are not known here stay, and a name is only a name', async () => {
    const read = await openLedger(utf8(`{"__proto__":{"a":1},${JSON.stringify({ ...head, later: { a: [1.5, null, true] } }).slice(1)}`));
    expect(read.ok && read.value.head).toMatchObject({ later: { a: [1.5, null, true] } });
    expect(({} as { a?: number }).a).toBeUndefined();
  });
  it.each([
    ['is another zip', async () => zipOf({ 'other.json': {} }), { of: 'ledger', code: 'not_a_ledger', entry: null }],
    ['is another JSON', async () => utf8({ format: 'something' }), { of: 'ledger', code: 'not_a_ledger', entry: null }],
    ['is a list', async () => zipOf({ 'ledger.json': [] }), { of: 'ledger', code: 'not_a_ledger', entry: 'ledger.json' }],
    ['is of a version to come', async () => utf8({ ...head, version: 2 }), { of: 'ledger', code: 'newer_version', entry: null }],
    [
      'is of no version',
      async () => utf8({ ...head, version: 'one' }),
      { of: 'ledger', code: 'field', entry: null, reason: 'version: must be a whole number' },
    ],
    [
      'is of a version that never was',
      async () => utf8({ ...head, version: 0 }),
      { of: 'ledger', code: 'field', entry: null, reason: 'version: must be a whole number' },
    ],
    [
      'has no household',
      async () => utf8({ ...head, household: null }),
      { of: 'ledger', code: 'field', entry: null, reason: 'household: must hold named fields' },
    ],
    ['has no list of events', async () => utf8({ ...head, events: {} }), { of: 'ledger', code: 'field', entry: null, reason: 'events: must be a list' }],
    [
      'lacks a part',
      async () => zipOf({ 'ledger.json': { ...head, parts: [{ name: 'events-1.json', events: 1 }] } }),
      { of: 'ledger', code: 'part_missing', entry: 'events-1.json' },
    ],
    [
      'is one file out of its zip',
      async () => utf8({ ...head, parts: [{ name: 'events-1.json', events: 1 }] }),
      { of: 'ledger', code: 'parts_apart', entry: 'events-1.json' },
    ],
    ['is no JSON', async () => zipOf({ 'ledger.json': '{"format":' }), { of: 'json', code: 'not_json', where: { byte: 10 }, entry: 'ledger.json' }],
    [
      'says a thing twice',
      async () => utf8('{"format":"mile-ledger","format":"mile-ledger"}'),
      { of: 'json', code: 'duplicate_key', where: { pointer: '/format' }, entry: null },
    ],
    ['is empty', async () => new Uint8Array(), { of: 'zip', code: 'zip_broken', entry: null }],
  ])('is refused where it %s', async (_what, bytes, expected) => {
    expect(await refusal(await bytes())).toEqual(expected);
  });
  it.each([
    ['has fewer events than was said', part(events.slice(0, 1))],
    ['is of another format', part(events, { format: 'x' })],
    ['is of another version', part(events, { version: 2 })],
    ['is no list', part({} as never)],
  ])('goes no further where a part %s', async (_what, wrong) => {
    const bytes = await zipOf({
      'ledger.json': {
        ...head,
        parts: [
          { name: 'e.json', events: events.length },
          { name: 'f.json', events: 0 },
        ],
      },
      'e.json': wrong,
      'f.json': part([]),
    });
    expect(await all(bytes)).toEqual([{ of: 'ledger', code: 'part_differs', entry: 'e.json' }]);
  });
});

// Whatever is in it: what goes in comes out, in whichever parts it was written.
it('a ledger of any records and events comes out of its zip as it went in', async () => {
  const some = (kind: string) =>
    fc.array(
      fc
        .record({
          id: fc.uuid(),
          kind: fc.constant(kind),
          payload: fc.dictionary(fc.stringMatching(/^[a-z]{1,8}$/), fc.jsonValue({ maxDepth: 3, noUnicodeString: false })),
        })
        // As the record keeps it: no zero and no half a character in a text.
        .filter((x) => unkeepable(x, '') === null),
      { maxLength: 12 },
    );
  await fc.assert(
    fc.asyncProperty(some('note'), some('reading'), some('plugged'), fc.boolean(), async (records, inHead, inPart, parted) => {
      const bytes = await zipOf({
        'ledger.json': { ...head, records, events: inHead, parts: parted ? [{ name: 'e.json', events: inPart.length }] : [] },
        ...(parted ? { 'e.json': part(inPart) } : {}),
      });
      const found = await all(bytes);
      const of = (name: 'records' | 'events') => found.flatMap((p) => (name in p ? (p as { records: unknown[]; events: unknown[] })[name] : []));
      const plain = (x: unknown) => JSON.parse(JSON.stringify(x));
      expect(new Set(of('records').map((r) => JSON.stringify(r)))).toEqual(new Set(records.map((r) => JSON.stringify(r))));
      expect(of('events')).toEqual(plain([...inHead, ...(parted ? inPart : [])]));
    }),
    { numRuns: 100, seed: 11 },
  );
}, 60_000);

describe('who somebody of the file is here', () => {
  const tone = { personId: 'b', name: 'Tone' };
  it.each([
    ['the same account, whatever it is called', [{ personId: 'a', name: 'Ines' }], [{ personId: 'a', name: 'Somebody' }, tone], ['a']],
    ['the only one of that name', [{ personId: 'x', name: ' tone ' }], [{ personId: 'a', name: 'Ines' }, tone], ['b']],
    ['asked where two have it', [{ personId: 'x', name: 'Tone' }], [{ personId: 'c', name: 'Tone' }, tone], [null]],
    ['asked where nobody has it', [{ personId: 'x', name: 'Mojca' }], [{ personId: 'a', name: 'Ines' }, tone], [null]],
    ['the only one, where both are alone', [{ personId: 'x', name: 'Mojca' }], [tone], ['b']],
    [
      'asked where one of two is here alone',
      [
        { personId: 'x', name: 'Mojca' },
        { personId: 'y', name: 'Tone' },
      ],
      [tone],
      [null, 'b'],
    ],
  ])('is %s', (_what, file, here, expected) => {
    expect([...proposedPeople(file, here).values()]).toEqual(expected);
  });
});
