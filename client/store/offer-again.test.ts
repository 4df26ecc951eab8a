import '@/client/store/fixtures/memory-storage';
import { phoneWho } from './fixtures/phone-who';
import 'fake-indexeddb/auto';

import { recordItem } from '@/core/records/record-schema';
import { idOf, VISIT } from '@/core/visit/fixtures/story';
import { sendOutbox } from '../outbox/send-outbox';
import { keepEvents, keepFromServer } from './keep-event';
import { keepRecords, pullChanges, wasRestored } from './keep-record';
import { openPhoneStore, type PhoneStore } from './phone-store';

const who = phoneWho();
const draft = (at: number) => ({ visitId: VISIT, kind: 'plugged' as const, payload: {}, zone: 'UTC', touch: { at, mono: at } });
type Answer = { rev: number; epoch?: string; epochRev?: number; records: object[] };

/** A server that says this of changes, takes every item under this rev and epoch, and remembers what it was asked and sent. */
function server(changes: Answer, epoch = changes.epoch) {
  const asked: string[] = [];
  const sent: { type: string; event?: { id: string }; record?: object }[] = [];
  globalThis.fetch = (async (url: string, init?: { body: string }) => {
    asked.push(url);
    if (!init?.body) return Response.json(changes);
    const { items } = JSON.parse(init.body);
    sent.push(...items);
    return Response.json({
      epoch,
      results: items.map((i: { event?: { id: string }; record?: { id: string } }) => ({ id: (i.event ?? i.record)?.id, status: 'taken', rev: 7 })),
    });
  }) as never;
  return { asked, sent };
}
const network = (id: number, name: string, rev: number) => ({
  type: 'network',
  id: idOf(id),
  rev,
  archived: false,
  fields: recordItem('network', idOf(id), { name }).fields,
});

let store: PhoneStore;
let household = 500;
beforeEach(async () => {
  who.householdId = idOf(++household);
  store = await openPhoneStore(who.householdId, who.personId);
});
afterEach(() => store.close());

describe('a ledger that was restored from a backup', () => {
  it('is fetched afresh, and offered the events that this person sent from here', async () => {
    const [mine] = await keepEvents(store, who, [draft(1)]);
    server({ rev: 5, epoch: 'first', records: [] });
    await sendOutbox(store);
    await pullChanges(store);
    await keepFromServer(store, [{ ...mine!, id: idOf(900), personId: idOf(3) }]);
    const { asked, sent } = server({ rev: 1_000_004, epoch: 'e2', epochRev: 4, records: [] });
    expect(await pullChanges(store)).toBe(true);
    expect(asked).toEqual(['/api/v1/changes?since=5', '/api/v1/changes?since=0']);
    expect(await sendOutbox(store)).toBe('sent');
    expect(sent.map((i) => i.event?.id)).toEqual([mine?.id]);
    // Once: the next look is as any other.
    await pullChanges(store);
    expect(asked.at(-1)).toBe('/api/v1/changes?since=1000004');
    expect(await store.count('outbox')).toBe(0);
  });
  it('is offered the records that were written after the backup and say something else, from what it has of them', async () => {
    for (const r of [network(30, 'as in the backup', 3), network(31, 'renamed since', 6), network(32, 'made since', 6), network(33, 'the same again', 6)])
      await store.put('record', r as never);
    const { sent } = server({
      rev: 1_000_005,
      epoch: 'e2',
      epochRev: 4,
      records: [network(30, 'as in the backup', 3), network(31, 'older name', 4), network(33, 'the same again', 1_000_005), network(34, 'new', 1_000_005)],
    });
    await pullChanges(store);
    await sendOutbox(store);
    expect(sent.map((i) => i.record)).toEqual([
      expect.objectContaining({ id: idOf(31), baseRev: 4, fields: expect.objectContaining({ name: 'renamed since' }) }),
      expect.objectContaining({ id: idOf(32), baseRev: 0, fields: expect.objectContaining({ name: 'made since' }) }),
    ]);
    expect(await store.get('record', ['network', idOf(34)])).toMatchObject({ fields: { name: 'new' } });
  });
  it('is not offered what is older here than in the backup, nor events that it refused, and references go first', async () => {
    const enrolment = { carId: idOf(50), networkId: idOf(37), kind: 'autocharge' as const };
    const records = [
      network(35, 'long out of date', 3),
      network(36, 'as old as the backup', 4),
      network(37, 'made since', 6),
      { type: 'enrolment', id: idOf(38), rev: 6, archived: true, fields: recordItem('enrolment', idOf(38), enrolment).fields },
    ];
    for (const r of records) await store.put('record', r as never);
    const [refused] = await keepEvents(store, who, [draft(1)]);
    await store.put('event', { event: refused!, state: 'refused', reason: 'x' });
    await store.clear('outbox');
    const { sent } = server({ rev: 1_000_004, epoch: 'e2', epochRev: 4, records: [network(35, 'in the backup', 4), network(36, 'there', 4)] });
    await pullChanges(store);
    const offered = (await store.getAll('outbox')).map(({ n: _, ...o }) => o);
    await sendOutbox(store);
    expect(sent.map((i) => [i.type, (i.record as { id: string; archived: boolean }).id, (i.record as { archived: boolean }).archived])).toEqual([
      ['record', idOf(37), false],
      ['record', idOf(38), true],
    ]);
    expect(offered.every((o) => !('base' in o))).toBe(true);
    expect(await store.get('record', ['network', idOf(35)])).toMatchObject({ fields: { name: 'in the backup' } });
    expect((await store.get('event', refused!.id))?.state).toBe('refused');
  });
  it('without an answer nothing changes', async () => {
    await store.put('meta', 'first', 'epoch');
    globalThis.fetch = (async () => Response.json({}, { status: 503 })) as never;
    expect(await pullChanges(store)).toBe(false);
    let asked = 0;
    globalThis.fetch = (async () => Response.json({ rev: 9, epoch: 'e2', epochRev: 1, records: [] }, { status: ++asked === 1 ? 200 : 503 })) as never;
    expect(await pullChanges(store)).toBe(false);
    expect(await store.get('meta', 'epoch')).toBe('first');
  });
  it('changed there since the restore: what is here comes as a change of the backup, so that it shows as a difference', async () => {
    await store.put('record', network(31, 'mine', 6) as never);
    const { sent } = server({ rev: 1_000_005, epoch: 'e2', epochRev: 4, records: [network(31, 'theirs', 1_000_005)] });
    await pullChanges(store);
    expect(await store.getAll('outbox')).toMatchObject([{ type: 'record', base: { name: 'theirs' } }]);
    await sendOutbox(store);
    expect(sent[0]?.record).toMatchObject({ id: idOf(31), baseRev: 4 });
  });
  it('what waits to be sent anyway is not offered twice', async () => {
    await keepRecords(store, [recordItem('network', idOf(30), { name: 'waiting' })]);
    await keepEvents(store, who, [draft(1)]);
    server({ rev: 1_000_000, epoch: 'e2', epochRev: 4, records: [] });
    await pullChanges(store);
    expect((await store.getAll('outbox')).map((o) => o.type)).toEqual(['record', 'event']);
    expect(await store.get('record', ['network', idOf(30)])).toMatchObject({ fields: { name: 'waiting' } });
  });
  it('is told by any answer of the outbox', async () => {
    await keepEvents(store, who, [draft(1)]);
    server({ rev: 1, epoch: 'first', records: [] });
    await sendOutbox(store);
    expect(await wasRestored(store)).toBe(false);
    await keepEvents(store, who, [draft(2)]);
    server({ rev: 1_000_001, epoch: 'e2', records: [] });
    await sendOutbox(store);
    expect(await wasRestored(store)).toBe(true);
    await pullChanges(store);
    expect(await wasRestored(store)).toBe(false);
  });
});

describe('changes of the household', () => {
  it('that were on their way while something was changed here and taken tell what was before: what was taken stays', async () => {
    for (const r of [network(30, 'mine, taken', 7), network(31, 'as it was', 5), network(32, 'mine', 6)]) await store.put('record', r as never);
    server({ rev: 6, records: [network(30, 'before', 4), network(31, 'theirs', 6), network(32, 'mine', 6), network(33, 'new', 6)] });
    expect(await pullChanges(store)).toBe(true);
    const names = async () => (await store.getAll('record')).map((r) => [(r.fields as { name: string }).name, r.rev]);
    expect(await names()).toEqual([
      ['mine, taken', 7],
      ['theirs', 6],
      ['mine', 6],
      ['new', 6],
    ]);
    // One that was written while it was told comes with it.
    server({ rev: 6, records: [network(30, 'mine, and theirs', 8)] });
    await pullChanges(store);
    expect((await names())[0]).toEqual(['mine, and theirs', 8]);
    // The next look brings what it was as well.
    server({ rev: 9, records: [network(30, 'theirs, later', 9)] });
    await pullChanges(store);
    expect((await names())[0]).toEqual(['theirs, later', 9]);
  });
});
