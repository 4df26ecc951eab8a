import { createHash } from 'node:crypto';
import { canonicalJson } from '@/core/records/canonical-json';
import type { StoredEvent } from '@/core/visit/event';
import { IN, story } from '@/core/visit/fixtures/story';
import { contentHash, EVENT_COLUMNS, eventRow } from './event-rows';

const [event] = story(IN) as [StoredEvent];

describe('the hash of an event', () => {
  const plain = (e: object) => createHash('sha256').update(canonicalJson(e)).digest('hex');
  it('is of all that the device wrote, in canonical JSON', () => {
    for (const e of story(IN)) expect(contentHash(e)).toBe(plain(e));
  });
  it('and of nothing that the server adds', () => expect(contentHash({ ...event, heard_ms: 7 })).toBe(plain(event)));
  it.each(Object.keys(event))('another %s is another hash', (name) => expect(contentHash({ ...event, [name]: 'other' })).not.toBe(contentHash(event)));
});

describe('the row of an event as SQL', () => {
  const at = new Date('2025-10-14T11:52:08.120Z');
  const row = (e: StoredEvent, sentAt: Date | null = null) => eventRow(e, 'ab'.repeat(32), at, sentAt);
  it('has a value for each column', () => expect(row({ ...event, payload: {} }).split(',')).toHaveLength(EVENT_COLUMNS.split(',').length));
  it('says when it was received and sent, in UTC', () => {
    expect(row(event).endsWith(`x'${'ab'.repeat(32)}','2025-10-14 11:52:08.120',NULL`)).toBe(true);
    expect(row(event, new Date('2025-10-14T11:52:07Z')).endsWith("'2025-10-14 11:52:08.120','2025-10-14 11:52:07.000'")).toBe(true);
  });
  it('a quote in a text ends no text', () => expect(row({ ...event, payload: { text: "it's \\ " } })).toContain(String.raw`'{\"text\":\"it\'s \\\\ \"}'`));
  it('of another event before it keeps nothing', () => {
    const other = {
      ...event,
      householdId: event.id,
      visitId: event.householdId,
      personId: event.visitId,
      deviceId: event.personId,
      life: event.id,
      zone: 'UTC',
    };
    const [a, b] = [row(event), row(other)];
    expect([row(other), row(event), row(event)]).toEqual([b, a, a]);
    expect(b).toContain("'UTC'");
  });
});
