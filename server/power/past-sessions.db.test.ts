import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { CARD, KW, type Step } from '@/core/visit/fixtures/story';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addVisit, asRecords, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { pastSessions } from './past-sessions';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('sessions of before', () => {
  let who: Member;
  /** One post on cabinet A, and others on A, on B, and on none that is noted. */
  const [own, mate, apart, alone] = [v7(), v7(), v7(), v7()];
  const place: Place = { networkId: v7(), siteId: v7(), stalls: [own, mate] };
  beforeAll(async () => {
    who = await newHousehold();
    const post = (id: string, name: string, cabinet: string | null) =>
      recordItem('stall', id, { siteId: place.siteId, name, cabinet, outlets: [{ connector: 'CCS2', ratedKW: 150 }] });
    await send(
      who,
      asRecords([
        recordItem('network', place.networkId, { name: 'Bluebarn' }),
        recordItem('site', place.siteId, { networkId: place.networkId, name: 'Lipa Barn', zone: 'UTC' }),
        ...[post(own, '1', 'A'), post(mate, '2', 'A'), post(apart, '3', 'B'), post(alone, '4', null)],
      ]),
    );
  });
  const visit = (hour: number, ...more: Step[]) =>
    addVisit(who, place, Date.UTC(2025, 5, 1, hour), [
      ...more,
      [20, 'plugged'],
      [30, 'means_shown', CARD],
      [50, 'power_seen', KW],
      ...[100, 300, 500].map((s): Step => [s, 'reading', { screen: 'stall', socPct: s / 10, kW: 60 }]),
      [600, 'pulled_out', { reason: 'enough' }],
    ]);
  const charging = (...stallIds: string[]): Step => [8, 'survey', { stalls: stallIds.map((stallId) => ({ stallId, state: 'charging' })) }];

  it('teach nothing where a car was seen charging on the same cabinet', async () => {
    const kinds: [string, boolean][] = [
      [await visit(1), false],
      [await visit(2, charging(mate)), true],
      [await visit(3, charging(apart, alone)), false],
      [await visit(4, charging(apart, mate)), true],
      [await visit(5, charging(mate), [15, 'change', { what: 'neighbour_out' }]), false],
      [await visit(6, [15, 'change', { what: 'neighbour_in' }]), true],
    ];
    const past = await pastSessions(who, { time: 'handshake', mark: 'kW' }, 100);
    expect(new Map(past.map((p) => [p.visitId, p.looks.hindered]))).toEqual(new Map(kinds));
  });
});
