import { v7 } from 'uuid';
import type { StoredEvent } from '@/core/visit/event';
import { pool } from '../db/pool';
import { describeWithDatabase, newHousehold, send } from '../fixtures/household';
import { contentHash, eventsOfVisits } from './event-rows';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('events as rows', () => {
  it('are kept as they came, whatever stands in their texts, at whatever moment', async () => {
    const who = await newHousehold();
    const visitId = v7();
    const texts = [
      "'); DELETE FROM event; --",
      'Which one? 5 ? 7',
      '\\\' \\" \\\\ \\n',
      "x'41' /* %s :at */",
      'line\nfeed\ttab\r\u0007',
      'ž € 😀 \u2028 \u200b',
      '`"` ~',
    ];
    const moments = [Date.UTC(2025, 9, 26, 0, 59, 59, 999), Date.UTC(2025, 9, 26, 1), Date.UTC(1990, 0, 2), Date.UTC(2024, 1, 29, 23, 59, 59, 1)];
    const events = texts.map(
      (text, i): StoredEvent => ({
        id: v7(),
        householdId: who.householdId,
        personId: who.personId,
        visitId,
        kind: 'note',
        v: 1,
        at: moments[i % moments.length] as number,
        precision: 'ms',
        zone: 'Europe/Ljubljana',
        deviceId: v7(),
        life: v7(),
        mono: i + 0.123456789,
        awake: i % 2 === 0,
        seq: i + 1,
        origin: 'tap',
        role: 'recorder',
        payload: { text, [text]: [null, 1e-7, 0.1, { deep: text }] },
      }),
    );
    const items = events.map((event) => ({ type: 'event', event }));
    expect((await send(who, items)).map((r) => r.status)).toEqual(texts.map(() => 'taken'));
    const kept = (await eventsOfVisits(who.householdId, [visitId])).get(visitId)?.map(({ heard_ms: _, ...e }) => e) ?? [];
    expect(kept.sort((a, b) => a.seq - b.seq)).toEqual(events);
    // What the server adds is no part of what the device wrote.
    expect(kept.map((e) => contentHash({ ...e, heard_ms: 5 }))).toEqual(events.map((e) => contentHash(e)));
    expect((await send(who, items)).map((r) => r.status)).toEqual(texts.map(() => 'already'));
  });
});
