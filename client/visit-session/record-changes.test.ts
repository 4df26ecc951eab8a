import '@/client/store/fixtures/memory-storage';
import 'fake-indexeddb/auto';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { idOf } from '@/core/visit/fixtures/story';
import { phoneWho } from '../store/fixtures/phone-who';
import { openPhoneStore, type PhoneStore } from '../store/phone-store';
import { byType, noRecords, type Records } from '../store/records-by-type';
import { recordChanges } from './record-changes';

const network = (n: number, name: string, archived = false) => ({ type: 'network', id: idOf(n), baseRev: 0, archived, fields: { name } }) as RecordItem;
const stored = (n: number, name: string, rev = 3) => ({ type: 'network', id: idOf(n), rev, archived: false, fields: { name } }) as MileRecord;
let store: PhoneStore;
let person = 400;
let shown: Records;
let troubles: string[];
let sent: (readonly RecordItem[])[];
let answer: string | null;
const begin = (...all: MileRecord[]) => {
  shown = byType(all);
  return recordChanges(
    () => shown,
    async (items) => {
      sent.push(items);
      return answer;
    },
    (now) => {
      shown = now.records;
      if (now.cannotKeep) troubles.push(now.cannotKeep);
    },
  );
};
const names = (records = shown) => records.network.map((r) => r.fields.name);
const full = {
  transaction: () => {
    throw new DOMException('no', 'QuotaExceededError');
  },
} as unknown as PhoneStore;

beforeEach(async () => {
  store = await openPhoneStore(phoneWho().householdId, idOf(++person));
  [shown, troubles, sent, answer] = [noRecords(), [], [], null];
});
afterEach(() => store.close());

describe('records changed in a session', () => {
  it('are drawn at once, each in its place, and stand on the disk', async () => {
    const changes = begin(stored(1, 'Ferrywell'), stored(2, 'Bluebarn'));
    const kept = changes.add(store, [network(1, 'Ferrywell East'), network(3, 'Otterbrook')]);
    expect(names()).toEqual(['Ferrywell East', 'Bluebarn', 'Otterbrook']);
    await kept;
    expect(names()).toEqual(['Ferrywell East', 'Bluebarn', 'Otterbrook']);
    expect((await store.getAll('record')).map((r) => (r as { fields: { name: string } }).fields.name).sort()).toEqual(['Ferrywell East', 'Otterbrook']);
    expect([await store.count('outbox'), sent]).toEqual([2, []]);
  });

  it('made at once, one upon the other, all count', async () => {
    const changes = begin(stored(1, 'a'));
    const both = [changes.add(store, [network(1, 'b')]), changes.add(store, [network(1, 'c'), network(2, 'd')])];
    expect(names()).toEqual(['c', 'd']);
    await Promise.all(both);
    expect(names(changes.over(await store.getAll('record')))).toEqual(['c', 'd']);
  });

  it('are not drawn back by what was read before they were on the disk', async () => {
    const changes = begin(stored(1, 'a'));
    await store.put('record', stored(1, 'a'));
    const before = await store.getAll('record');
    const kept = changes.add(store, [network(1, 'b')]);
    expect(names(changes.over(before))).toEqual(['b']);
    await kept;
    // From then on the disk says it, and what the server made of it.
    expect(names(changes.over([stored(1, 'c', 4)]))).toEqual(['c']);
  });

  it('put away are drawn no more', async () => {
    const changes = begin(stored(1, 'a'), stored(2, 'b'));
    await changes.add(store, [network(1, 'a', true)]);
    expect(names()).toEqual(['b']);
  });

  it.each(['is full', 'is refused'])('where storage %s go to the server at once, and stay drawn whatever the disk says', async (how) => {
    const changes = begin(stored(1, 'a'));
    await changes.add(how === 'is full' ? full : null, [network(1, 'b')]);
    expect([names(), names(changes.over([stored(1, 'a')])), troubles]).toEqual([['b'], ['b'], []]);
    expect(sent).toEqual([[network(1, 'b')]]);
  });

  it('sent because the disk was full are not drawn over what is changed once there is room', async () => {
    const changes = begin(stored(1, 'a'), stored(2, 'z'));
    await changes.add(full, [network(1, 'b'), network(2, 'y')]);
    await changes.add(store, [network(1, 'c')]);
    expect(names(changes.over([...(await store.getAll('record')), stored(2, 'z')]))).toEqual(['c', 'y']);
  });

  it('that can neither be kept nor sent are as they were before, new ones gone, and it is said', async () => {
    const changes = begin(stored(1, 'a'), stored(2, 'z'));
    answer = 'the server could not be reached';
    await changes.add(full, [network(1, 'b'), network(3, 'c')]);
    expect(names()).toEqual(['a', 'z']);
    expect(names(changes.over([stored(1, 'a')]))).toEqual(['a']);
    expect(troubles).toEqual(['places and garage could not be changed, the server could not be reached']);
  });
});
