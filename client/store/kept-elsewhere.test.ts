import '@/client/store/fixtures/memory-storage';
import { phoneWho } from './fixtures/phone-who';
import 'fake-indexeddb/auto';

import { deleteDB, openDB } from 'idb';

import { openLedger } from '@/core/formats/ledger-file';
import { recordItem } from '@/core/records/record-schema';
import { idOf, VISIT } from '@/core/visit/fixtures/story';
import { type EventDraft, keepEvents, keepFromServer } from './keep-event';
import { forgetStore, keptElsewhere } from './kept-elsewhere';
import { ledgerOfUnsent } from './ledger-of-unsent';
import { clearSentData, openOwnStore, openPhoneStore, type PhoneStore } from './phone-store';

const HERE = phoneWho();
/** The same person in another household. */
const THERE = { ...phoneWho(idOf(2), idOf(9)), name: 'Vid Kos', householdName: 'Kos', zone: 'Europe/Ljubljana' };
const [SITE, NETWORK, STALL, OTHER] = [idOf(31), idOf(30), idOf(32), idOf(33)];
const touch = { at: 1_760_000_000_000, mono: 1 };
const draft = (kind: 'pulled_in' | 'plugged', payload: { siteId?: string }, visitId = VISIT): EventDraft => ({ visitId, kind, payload, zone: 'UTC', touch });
const record = (type: 'network' | 'site' | 'stall', id: string, fields: object) => {
  const item = recordItem(type, id, fields as never);
  return { type, id, rev: 1, archived: false, fields: item.fields } as never;
};

const opened: PhoneStore[] = [];
async function store(who: typeof HERE): Promise<PhoneStore> {
  const s = await openOwnStore(who);
  opened.push(s);
  return s;
}
afterEach(async () => {
  for (const s of opened.splice(0)) s.close();
  for (const { name } of await indexedDB.databases()) if (name) await deleteDB(name);
});

test('what waits for another household or person is told, with whose it is; what waits here is not', async () => {
  const mine = await store(HERE);
  await keepEvents(mine, HERE, [draft('plugged', {})]);
  const there = await store(THERE);
  expect(await keptElsewhere(HERE)).toEqual([]);
  await keepEvents(there, THERE, [draft('plugged', {}), draft('plugged', {})]);
  await there.put('photo', { sha256: 'a'.repeat(64), bytes: new Blob(['x']), state: 'kept' });
  await there.put('photo', { sha256: 'b'.repeat(64), bytes: new Blob(['x']), state: 'refused' });
  const whose = { name: 'Vid Kos', householdName: 'Kos', currency: 'EUR', zone: 'Europe/Ljubljana' };
  expect(await keptElsewhere(HERE)).toEqual([{ householdId: idOf(9), personId: idOf(2), whose, unsent: 3 }]);
  // Looked at from there it is the other way round.
  expect((await keptElsewhere(THERE)).map((k) => [k.householdId, k.unsent])).toEqual([[idOf(1), 1]]);
  // Other programs' stores are none of ours, whatever they are called.
  (await openDB('mile-of-something')).close();
  expect(await keptElsewhere(HERE)).toHaveLength(1);
  there.close();
  await forgetStore(THERE);
  expect(await keptElsewhere(HERE)).toEqual([]);
});

test('a browser that does not tell its stores, or will not open one, has none to speak of', async () => {
  const there = await store(THERE);
  await keepEvents(there, THERE, [draft('plugged', {})]);
  const asked = jest.spyOn(indexedDB, 'databases').mockRejectedValueOnce(new Error('no'));
  expect(await keptElsewhere(HERE)).toEqual([]);
  asked.mockResolvedValueOnce([{ name: `mile-${idOf(8)}-${idOf(7)}`, version: 99 }, {}]);
  expect(await keptElsewhere(HERE)).toEqual([]);
  asked.mockRestore();
  expect(await keptElsewhere(HERE)).toHaveLength(1);
});

test('signed out, a store says whose it is as long as something waits in it', async () => {
  const there = await store(THERE);
  await keepEvents(there, THERE, [draft('plugged', {})]);
  await clearSentData(there);
  expect((await keptElsewhere(HERE))[0]?.whose?.name).toBe('Vid Kos');
  await there.clear('outbox');
  await clearSentData(there);
  expect(await there.get('meta', 'whose')).toBeUndefined();
  // Of a store of before, nothing says.
  const nameless = await openPhoneStore(idOf(8), idOf(2));
  opened.push(nameless);
  await nameless.add('outbox', { type: 'event', id: idOf(5) });
  expect(await keptElsewhere(HERE)).toEqual([{ householdId: idOf(8), personId: idOf(2), whose: null, unsent: 1 }]);
});

test('as a ledger: the visits of which something waits, whole, with what they name and nothing else', async () => {
  const there = await store(THERE);
  for (const r of [
    record('stall', STALL, { siteId: SITE, name: '1', outlets: [{ connector: 'CCS2', ratedKW: 150 }] }),
    record('site', SITE, { networkId: NETWORK, name: 'Brod Landing', zone: 'UTC' }),
    record('network', NETWORK, { name: 'Ferrywell' }),
    record('network', OTHER, { name: 'Otterbrook' }),
  ])
    await there.put('record', r);
  const [first] = await keepEvents(there, THERE, [draft('pulled_in', { siteId: SITE })]);
  await keepFromServer(there, [first as never]);
  await there.clear('outbox');
  await keepEvents(there, THERE, [draft('plugged', {})]);
  const [elsewhere] = await keepEvents(there, THERE, [draft('plugged', {}, idOf(77))]);
  await there.put('event', { event: elsewhere as never, state: 'sent' });
  await there.put('event', { event: { ...(elsewhere as never as object), id: idOf(78), personId: idOf(3), visitId: VISIT } as never, state: 'kept' });
  const photo = 'c'.repeat(64);
  await there.put('photo', { sha256: photo, bytes: new Blob(['picture']), state: 'kept' });

  const [of] = await keptElsewhere(HERE);
  const file = await ledgerOfUnsent(there, of as never);
  const read = await openLedger(new Uint8Array(await file.arrayBuffer()));
  if (!read.ok) throw new Error(JSON.stringify(read.refused));
  const { head } = read.value;
  expect(head.household).toEqual({ id: idOf(9), name: 'Kos', currency: 'EUR', zone: 'Europe/Ljubljana' });
  expect(head.people).toEqual([{ personId: idOf(2), name: 'Vid Kos', role: 'driver' }]);
  expect(head.records.map((r) => (r as { fields: { name: string } }).fields.name)).toEqual(['Ferrywell', 'Brod Landing']);
  expect(head.events.map((e) => (e as { kind: string; seq: number; visitId: string }).kind)).toEqual(['pulled_in', 'plugged']);
  expect(head.photos).toEqual([{ name: photo, stored: photo, personId: idOf(2) }]);
  const bytes = await read.value.photo(photo);
  expect(bytes.ok && bytes.value && new TextDecoder().decode(bytes.value)).toBe('picture');
});

test('a picture that waits takes the visit along that speaks of it, though all of that was sent', async () => {
  const there = await store(THERE);
  const photo = 'd'.repeat(64);
  const [told] = await keepEvents(there, THERE, [{ visitId: VISIT, kind: 'note', payload: { text: 'bent pin', photo }, zone: 'UTC', touch }]);
  await there.put('event', { event: told as never, state: 'sent' });
  await there.clear('outbox');
  await there.put('photo', { sha256: photo, bytes: new Blob(['picture']), state: 'kept' });
  const [of] = await keptElsewhere(HERE);
  const read = await openLedger(new Uint8Array(await (await ledgerOfUnsent(there, of as never)).arrayBuffer()));
  expect(read.ok && read.value.head.events).toHaveLength(1);
});

test('changes of records that nobody took go along as they were changed, with what they name; a picture that was refused does not', async () => {
  const there = await store(THERE);
  const site = (name: string) => recordItem('site', SITE, { networkId: NETWORK, name, zone: 'UTC' });
  await there.put('record', record('network', NETWORK, { name: 'Ferrywell' }));
  await there.put('record', record('site', SITE, { networkId: NETWORK, name: 'Brod Landing', zone: 'UTC' }));
  await there.add('outbox', { type: 'record', id: SITE, item: site('Brod Landing West') });
  await there.put('unsettled', { type: 'network', id: OTHER, mine: recordItem('network', OTHER, { name: 'Otterbrook' }), reason: 'no' });
  await there.put('photo', { sha256: 'e'.repeat(64), bytes: new Blob(['x']), state: 'refused' });
  const [of] = await keptElsewhere(HERE);
  expect(of?.unsent).toBe(2);
  const read = await openLedger(new Uint8Array(await (await ledgerOfUnsent(there, of as never)).arrayBuffer()));
  if (!read.ok) throw new Error(JSON.stringify(read.refused));
  expect(read.value.head.records).toEqual([
    { type: 'network', id: NETWORK, archived: false, fields: expect.objectContaining({ name: 'Ferrywell' }) },
    { type: 'site', id: SITE, archived: false, fields: expect.objectContaining({ name: 'Brod Landing West' }) },
    { type: 'network', id: OTHER, archived: false, fields: expect.objectContaining({ name: 'Otterbrook' }) },
  ]);
  expect(read.value.head.photos).toEqual([]);
  expect(read.value.head.events).toEqual([]);
});
