import { createHash } from 'node:crypto';
import Ajv from 'ajv/dist/2020';
import type { RowDataPacket } from 'mysql2/promise';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { type LedgerFile, ledgerBatches, openLedger } from '@/core/formats/ledger-file';
import { ledgerSchema } from '@/core/formats/ledger-schema';
import { ARCHIVED } from '@/core/records/record-change';
import { recordItem } from '@/core/records/record-schema';
import type { Member } from '../accounts/who';
import { closeMonth } from '../compare/closed-months';
import { savedViews, saveView } from '../compare/saved-views';
import { endWatch, putOnWatch, watchesOf } from '../compare/watches';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, asRecords, CHARGED, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { keepPhoto, readPhoto, restorePhoto } from '../photos/photo-table';
import { readRecord } from '../records/record-tables';
import { eventsOfVisits } from '../visits/event-rows';
import { withdrawalFor } from '../visits/follow-joins';
import { joinVisits } from '../visits/join-visits';
import { visitPage } from '../visits/visit-page';
import { bringIn } from './bring-in';
import { takeLedger } from './ledger-in';
import { ledgerJsonSchema } from './ledger-json-schema';
import { ledgerEntries, ledgerZip } from './ledger-out';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const named = { householdName: 'Kolar', currency: 'EUR', zone: 'UTC' };
/** The whole ledger of a household as a file, read again. */
async function taken(who: Member): Promise<LedgerFile> {
  const bytes = new Uint8Array(await new Response(ledgerZip({ ...who, ...named }, new Date(0))).arrayBuffer());
  const read = await openLedger(bytes);
  if (!read.ok) throw new Error(JSON.stringify(read.refused));
  return read.value;
}
/** What the files of a ledger say, whoever's it is. */
async function said(who: Member, people: Record<string, string> = {}): Promise<unknown> {
  const out: Record<string, unknown> = {};
  for await (const { name, content } of ledgerEntries({ ...who, ...named }))
    out[name] = typeof content === 'string' ? content : createHash('sha256').update(content).digest('hex');
  let text = JSON.stringify(out).replaceAll(who.householdId, 'household');
  for (const [id, called] of Object.entries(people)) text = text.replaceAll(id, called);
  return text;
}
const picture = () =>
  sharp({ create: { width: 60, height: 40, channels: 3, background: '#864' } })
    .jpeg()
    .toBuffer();

/** A household with a place, visits of two people, a photo, pairs on watch and a saved comparison. */
async function used(): Promise<{ ines: Member; tone: Member; place: Place; visits: string[]; photo: string }> {
  const ines = await newHousehold();
  const tone = await addSomebody(ines.householdId, 'driver');
  const place = await addPlace(ines);
  // What a network's file says of a site names its posts by ids that may be those of stalls here, as our own does.
  const site = await readRecord(ines.householdId, 'site', place.siteId);
  const told = recordItem('site', place.siteId, {
    ...(site?.fields as NonNullable<typeof site>['fields']),
    fromFile: { format: 'OCPI', day: '2025-10-01', document: JSON.stringify({ id: place.siteId, evses: place.stalls.map((uid) => ({ uid })) }) },
  });
  expect(await send(ines, asRecords([{ ...told, baseRev: site?.rev ?? 0 }]))).toMatchObject([{ status: 'taken' }]);
  const sent = await picture();
  const photo = createHash('sha256').update(sent).digest('hex');
  await keepPhoto(ines, photo, sent);
  const at = Date.UTC(2025, 9, 1, 12);
  const visits = [
    await addVisit(ines, place, at, [
      [30, 'fault', { code: 'start_error', side: 'network', photo }],
      ...CHARGED.map(([s, ...x]) => [s + 60, ...x] as (typeof CHARGED)[number]),
    ]),
    await addVisit(tone, place, at + 3600_000, [[1, 'queue_joined'], ...CHARGED]),
  ];
  // That somebody else drove was said afterwards.
  const [pulledIn] = (await eventsOfVisits(ines.householdId, visits)).get(visits[0] as string) ?? [];
  const driven = { ...pulledIn, id: v7(), seq: 100, kind: 'correction', payload: { target: pulledIn?.id, set: { drivenBy: tone.personId } } };
  expect(await send(ines, [{ type: 'event', event: driven }])).toMatchObject([{ status: 'taken' }]);
  const pair = { by: 'site' as const, a: place.siteId, b: v7(), figure: 'waiting' as const };
  const [first, second] = [v7(), v7()];
  await putOnWatch(ines, { id: first, ...pair });
  await endWatch(ines, first);
  await putOnWatch(tone, { id: second, ...pair, figure: 'first_try' });
  await saveView(ines, { id: v7(), name: 'By site', address: `?driver=${tone.personId}&by=site` });
  expect(await closeMonth({ ...ines, zone: 'UTC' }, '2025-10')).toBeNull();
  return { ines, tone, place, visits, photo };
}

describeWithDatabase('a whole ledger, out and in', () => {
  it('into an empty household it is the same, photos and people with it; once more it is there already', async () => {
    const from = await used();
    const file = await taken(from.ines);
    const to = await newHousehold();
    const second = await addSomebody(to.householdId, 'driver');
    const people = { [from.ines.personId]: to.personId, [from.tone.personId]: second.personId };
    const before = await bringIn(to, file, { people, theirs: {} }, false);
    expect([before.taken.record, before.taken.view, before.taken.watch, before.taken.closed, before.already, before.refused, before.differs]).toEqual([
      4,
      1,
      2,
      1,
      0,
      [],
      [],
    ]);
    expect(await readRecord(to.householdId, 'site', from.place.siteId)).toBeNull();

    const all = await bringIn(to, file, { people, theirs: {} }, true);
    expect(all).toEqual({ ...before, photos: { taken: 1, already: 0, refused: [] } });
    expect(await said(to, { [to.personId]: 'ines', [second.personId]: 'tone' })).toEqual(
      await said(from.ines, { [from.ines.personId]: 'ines', [from.tone.personId]: 'tone' }),
    );
    // Figures are derived there as they were here.
    for (const id of from.visits) {
      const [a, b] = [await visitPage(from.ines, id), await visitPage(to, id)];
      expect(b).not.toBeNull();
      expect(JSON.stringify(b).replaceAll(second.personId, '').replaceAll(to.personId, '').replaceAll(to.householdId, '').length).toBe(
        JSON.stringify(a).replaceAll(from.tone.personId, '').replaceAll(from.ines.personId, '').replaceAll(from.ines.householdId, '').length,
      );
    }
    const again = await bringIn(to, file, { people, theirs: {} }, true);
    expect([again.taken, again.differs, again.refused, again.photos]).toEqual([
      { record: 0, event: 0, watch: 0, view: 0, closed: 0 },
      [],
      [],
      { taken: 0, already: 1, refused: [] },
    ]);
    expect(again.already).toBe(before.taken.record + before.taken.event + before.taken.watch + before.taken.view + before.taken.closed);
    // Said to be somebody else the second time: still the same events; the comparison of that driver's visits is one of somebody else's.
    const other = await bringIn(to, file, { people: { ...people, [from.tone.personId]: to.personId }, theirs: {} }, true);
    expect([other.already, other.differs.map((d) => d.kind)]).toEqual([again.already - 1, ['view']]);
  });
  it('into a household in use nothing is written over: what differs is told, and a record is changed where its version of the file is chosen', async () => {
    const { ines, tone, place, visits } = await used();
    const file = await taken(ines);
    const people = { [ines.personId]: ines.personId, [tone.personId]: tone.personId };
    const site = await readRecord(ines.householdId, 'site', place.siteId);
    await send(ines, asRecords([{ ...recordItem('site', place.siteId, { networkId: place.networkId, name: 'Lipa Barn South', zone: 'UTC' }, site?.rev) }]));
    const changed = (file.head.events as { kind: string; payload: object; visitId: string }[]).map((e) =>
      e.kind === 'fault' ? { ...e, payload: { ...e.payload, code: 'other' } } : e,
    );
    const bent: LedgerFile = {
      ...file,
      head: { ...file.head, events: changed },
      events: async function* () {
        yield { ok: true, value: changed };
      },
    };
    for (const take of [false, true]) {
      const told = await bringIn(ines, bent, { people, theirs: {} }, take);
      expect(told.differs).toMatchObject([
        { kind: 'record', id: place.siteId, what: 'Lipa Barn', here: { fields: { name: 'Lipa Barn South' } }, file: { fields: { name: 'Lipa Barn' } } },
        { kind: 'event', what: 'fault', file: visits[0] },
      ]);
      expect(told.taken).toEqual({ record: 0, event: 0, watch: 0, view: 0, closed: 0 });
    }
    expect((await readRecord(ines.householdId, 'site', place.siteId))?.fields.name).toBe('Lipa Barn South');
    // What of a record is chosen is of the file, the rest stays; putting away counts as one of its fields.
    const stands = async () => {
      const found = await readRecord(ines.householdId, 'site', place.siteId);
      return [found?.fields.name, found?.fields.fromFile === null, found?.archived];
    };
    await send(ines, [{ type: 'record', record: { type: 'site', id: place.siteId, baseRev: 99, archived: true, fields: {} } }]);
    expect(await stands()).toEqual(['Lipa Barn South', true, true]);
    const choose = async (names: string[]) => {
      const chosen = await bringIn(ines, file, { people, theirs: { [place.siteId]: names } }, true);
      return [chosen.taken.record, chosen.differs];
    };
    expect([await choose(['name', 'nothing of it']), await stands()]).toEqual([
      [1, []],
      ['Lipa Barn', true, true],
    ]);
    expect([await choose([ARCHIVED, 'fromFile']), await stands()]).toEqual([
      [1, []],
      ['Lipa Barn', false, false],
    ]);
    expect([await choose(['name']), await stands()]).toEqual([
      [0, []],
      ['Lipa Barn', false, false],
    ]);
  });
  it('somebody of whom it was not said who that is here costs their own events and no others; a stranger is nobody', async () => {
    const { ines, tone } = await used();
    const file = await taken(ines);
    const to = await newHousehold();
    const stranger = await newHousehold();
    const own = (await bringIn(to, file, { people: { [ines.personId]: to.personId, [tone.personId]: stranger.personId }, theirs: {} }, true)).refused;
    const theirs = (file.head.events as { id: string; personId: string }[]).filter((e) => e.personId === tone.personId);
    const unsaid = [...theirs.map((e) => e.id), ...(file.head.views as { id: string }[]).map((v) => v.id)];
    expect(new Set(own.map((r) => r.id))).toEqual(new Set(unsaid));
    expect(own[0]).toMatchObject({ kind: 'event', path: 'personId', reason: 'is somebody of whom it was not said who that is here' });
    // Names of the language itself are nobody's either.
    expect(
      (
        await takeLedger(
          to,
          {
            people: {},
            theirs: {},
            records: [],
            events: [{ personId: 'constructor' }, null, 7, []],
            watches: [null],
            views: ['x'],
            closed: [{ month: '2025-99' }, null],
          },
          true,
        )
      ).refused,
    ).toHaveLength(8);
  });
  it('what comes late to a recording that was joined here follows it; what the file joined and parted comes in as it stood there', async () => {
    const { ines, tone, visits } = await used();
    const early = await taken(ines);
    const to = await newHousehold();
    const people = { [ines.personId]: to.personId, [tone.personId]: to.personId };
    await bringIn(to, early, { people, theirs: {} }, true);
    const both = { into: visits[1] as string, from: visits[0] as string };
    expect(await joinVisits(to, both)).toMatchObject({ ok: true });
    const note = { ...(early.head.events as object[])[0], id: v7(), kind: 'note', seq: 200, payload: { text: 'said later' } };
    expect((await takeLedger(to, { people, theirs: {}, records: [], events: [note], watches: [], views: [], closed: [] }, true)).taken.event).toBe(1);
    const notes = async (who: Member, id: string) => ((await eventsOfVisits(who.householdId, [id])).get(id) ?? []).filter((e) => e.kind === 'note').length;
    expect([await notes(to, both.from), await notes(to, both.into)]).toEqual([1, 1]);
    // A visit that is private by what comes is so where it stands, before any figure is derived.
    const other = await addSomebody(to.householdId, 'driver');
    const mark = { ...note, id: v7(), kind: 'mark', seq: 201, payload: { as: 'private' } };
    await takeLedger(to, { people, theirs: {}, records: [], events: [mark], watches: [], views: [], closed: [] }, true);
    const [[stands]] = await pool().execute<RowDataPacket[]>('SELECT private_to FROM visit WHERE household_id = ? AND id = ?', [
      toBin(to.householdId),
      toBin(both.into),
    ]);
    expect(fromBin(stands?.private_to)).toBe(to.personId);
    expect(await visitPage(other, both.into)).toHaveProperty('privateVisit');

    // Joined, parted and joined again where it comes from.
    const restore = async () => {
      const own = (await eventsOfVisits(ines.householdId, [both.from])).get(both.from) ?? [];
      const join = own.findLast((e) => e.kind === 'withdrawal' && e.payload.joinedInto === both.into);
      const back = withdrawalFor(ines, own, { target: String(join?.id) }, Date.now());
      expect(await send(ines, [{ type: 'event', event: back }])).toMatchObject([{ status: 'taken' }]);
    };
    for (const _ of [1, 2]) {
      expect(await joinVisits(ines, both)).toMatchObject({ ok: true });
      await restore();
    }
    expect(await joinVisits(ines, both)).toMatchObject({ ok: true });
    const empty = await newHousehold();
    const second = await addSomebody(empty.householdId, 'driver');
    const all = { [ines.personId]: empty.personId, [tone.personId]: second.personId };
    const file = await taken(ines);
    // As it may come in pieces: the other recording first, then each joining and parting by itself.
    const events = file.head.events as { kind: string; visitId: string; seq: number; payload: object }[];
    const isWhole = (e: (typeof events)[number]) => e.kind === 'withdrawal' && e.visitId === both.from;
    const pieces = [events.filter((e) => !isWhole(e)).reverse(), ...events.filter(isWhole).map((e) => [e])];
    expect(pieces.length).toBeGreaterThan(5);
    for (const piece of pieces) {
      const { refused } = await takeLedger(
        empty,
        { people: all, theirs: {}, records: file.head.records, events: piece, watches: [], views: [], closed: [] },
        true,
      );
      expect(refused).toEqual([]);
    }
    await bringIn(empty, file, { people: all, theirs: {} }, true);
    expect(await said(empty, { [empty.personId]: 'ines', [second.personId]: 'tone' })).toEqual(
      await said(ines, { [ines.personId]: 'ines', [tone.personId]: 'tone' }),
    );
  });
  it('opens no visit that is private to somebody else, and takes out none', async () => {
    const { ines, tone, place } = await used();
    const hers = await addVisit(tone, place, Date.UTC(2025, 9, 3, 12), [...CHARGED, [1000, 'mark', { as: 'private' }]]);
    expect((await said(ines)) as string).not.toContain(hers);
    expect((await said(tone)) as string).toContain(hers);
    const mark = {
      ...((await taken(tone)).head.events as { kind: string; visitId: string; seq: number }[]).find((e) => e.visitId === hers && e.kind === 'mark'),
      id: v7(),
      seq: 99,
      payload: { as: 'business' },
    };
    for (const take of [false, true])
      expect(
        (
          await takeLedger(
            ines,
            { people: { [tone.personId]: tone.personId }, theirs: {}, records: [], events: [mark], watches: [], views: [], closed: [] },
            take,
          )
        ).refused,
      ).toMatchObject([{ kind: 'event', path: 'visitId', reason: 'is a visit here that is private to somebody else' }]);
    expect((await said(ines)) as string).not.toContain(hers);
  });
  it('what is private is so from the first on, before any figure is derived', async () => {
    const { tone, place } = await used();
    const hers = await addVisit(tone, place, Date.UTC(2025, 9, 3, 12), [...CHARGED, [1000, 'mark', { as: 'private' }]]);
    const file = await taken(tone);
    const to = await newHousehold();
    const people = Object.fromEntries(file.head.people.map((p) => [p.personId, to.personId]));
    for await (const piece of ledgerBatches(file)) {
      if (!piece.ok) throw new Error();
      await takeLedger(to, { ...piece.value, people, theirs: {} }, true);
      const [rows] = await pool().execute<RowDataPacket[]>('SELECT private_to FROM visit WHERE household_id = ? AND id = ?', [
        toBin(to.householdId),
        toBin(hers),
      ]);
      for (const r of rows) expect(fromBin(r.private_to)).toBe(to.personId);
    }
  });
  it('one bad thing costs itself', async () => {
    const { ines, tone } = await used();
    const to = await newHousehold();
    const { head } = await taken(ines);
    const [first, ...others] = head.events as Record<string, unknown>[];
    const [network, site] = head.records as { id: string; fields: object }[];
    const people = { [ines.personId]: to.personId, [tone.personId]: to.personId };
    const told = await takeLedger(
      to,
      {
        people,
        theirs: {},
        records: [{ ...network, fields: { name: '' } }, site, { type: 'nothing', id: v7(), fields: {} }, 5],
        events: [{ ...first, at: 'noon' }, ...others],
        watches: [{ ...(head.watches[0] as object), since: 'then' }, head.watches[1]],
        views: [{ id: 'x' }, head.views[0]],
        closed: [{ ...(head.closed[0] as object), month: '2025-7' }, head.closed[0]],
      },
      true,
    );
    // Without its network a site finds no place.
    expect(told.taken).toEqual({ record: 0, event: others.length, watch: 1, view: 1, closed: 1 });
    expect(told.refused.map((r) => [r.kind, r.path])).toEqual(
      expect.arrayContaining([
        ['record', 'fields.name'],
        ['record', 'fields'],
        ['record', 'type'],
        ['record', 'record'],
        ['event', 'at'],
        ['watch', 'since'],
        ['view', 'id'],
        ['closed', 'month'],
      ]),
    );
    expect(await watchesOf(to.householdId)).toHaveLength(1);
    expect((await savedViews(to.householdId)).map((v) => v.name)).toEqual(['By site']);
    // A comparison of the same name stays the one that is here.
    expect(
      (
        await takeLedger(
          to,
          { people, theirs: {}, records: [], events: [], watches: [], views: [{ ...(head.views[0] as object), id: v7() }], closed: [] },
          true,
        )
      ).taken.view,
    ).toBe(0);
  });
  it('a photo comes back byte for byte, one with more in it is written anew, what is none is refused', async () => {
    const { ines, photo } = await used();
    const kept = (await readPhoto(ines.householdId, photo)) as Buffer;
    const to = await newHousehold();
    expect(await restorePhoto(to, photo, kept)).toEqual({ ok: true, already: false });
    expect(await readPhoto(to.householdId, photo)).toEqual(kept);
    const more = Buffer.concat([kept, Buffer.from('<script>')]);
    expect(await restorePhoto(to, 'e'.repeat(64), more)).toEqual({ ok: true, already: false });
    expect((await readPhoto(to.householdId, 'e'.repeat(64)))?.includes('<script>')).toBe(false);
    expect(await restorePhoto(to, 'f'.repeat(64), Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'))).toMatchObject({ ok: false });
  });
  it('is as the published schema says', async () => {
    const { ines } = await used();
    const { head } = await taken(ines);
    // By a validator of JSON Schema that knows nothing of ours, too.
    const valid = new Ajv({ strict: false, allErrors: true, validateFormats: false }).compile(ledgerJsonSchema());
    expect([valid(head), valid.errors]).toEqual([true, null]);
    expect(valid({ ...head, events: [{ ...(head.events[0] as object), at: 'noon' }] })).toBe(false);
    expect(valid({ ...head, records: [{ ...(head.records[0] as object), fields: {} }] })).toBe(false);
    expect(ledgerSchema.safeParse(head).error).toBeUndefined();
    expect((await taken(await newHousehold())).head).toMatchObject({ records: [], events: [], photos: [], parts: [] });
  });
});
