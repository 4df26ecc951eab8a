import { v7 } from 'uuid';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { recordItem } from '@/core/records/record-schema';
import { CARD, KW, type Step } from '@/core/visit/fixtures/story';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addVisit, asRecords, CHARGED, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { compareRows } from '../visits/compare-query';
import { joinVisits } from '../visits/join-visits';
import { usualWaiting } from '../visits/usual-waiting';
import { drawSeed } from './draw-seed';
import { trialFound, trialSteps } from './trial-visits';
import { voidRound } from './void-round';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('a trial', () => {
  let who: Member;
  let place: Place;
  let trialId: string;
  const sides = () => place.stalls.map((key, i) => ({ key, label: `Stall ${i + 1}`, siteId: place.siteId }));
  const plan = (more: object = {}) =>
    recordItem('trial', trialId, {
      name: 'One or two',
      kind: 'stall',
      sides: sides(),
      rounds: 7,
      seed: 41,
      time: 'handshake',
      mark: 'kW',
      observers: 1,
      ...more,
    } as never);
  const run = (round: number, side: 'a' | 'b', s: number): Step[] => [
    [6, 'stall_chosen', { stallId: place.stalls[side === 'a' ? 0 : 1] }],
    [7, 'trial_round', { trialId, round, side }],
    [10, 'plugged'],
    [20, 'means_shown', CARD],
    [20 + s, 'power_seen', KW],
    [200, 'unplugged'],
    [210, 'pulled_out', { reason: 'enough' }],
  ];
  beforeEach(async () => {
    who = await newHousehold();
    place = await addPlace(who);
    trialId = v7();
    const [result] = await send(who, asRecords([plan()]));
    expect(result?.status).toBe('taken');
  });

  it('is found with its rounds, and tells each phone which steps are done', async () => {
    expect(await trialSteps(who)).toEqual({ [trialId]: [] });
    for (let n = 1; n <= 7; n++) {
      await addVisit(who, place, Date.UTC(2025, 5, 1, n), run(n, 'a', 10));
      await addVisit(who, place, Date.UTC(2025, 5, 1, n, 30), run(n, 'b', 30));
    }
    const found = await trialFound(who, trialId);
    expect(found?.rounds).toHaveLength(14);
    expect(found?.result).toMatchObject({ degree: 'clearly', counted: 7 });
    expect((await trialSteps(who))[trialId]).toHaveLength(14);
  });
  it('its visits are in no everyday share', async () => {
    await addVisit(who, place, Date.UTC(2025, 5, 1), run(1, 'a', 10));
    await addVisit(who, place, Date.UTC(2025, 5, 2), CHARGED);
    const rows = await compareRows(
      who,
      'EUR',
      readLedgerFilter(() => null),
      { visit: ['leftOut'], attempt: ['outcome'] },
    );
    expect(rows.map((r) => r.leftOut).sort()).toEqual([false, true]);
    const usual = await usualWaiting(who);
    expect(Object.values(usual).map((u) => [u.s, u.attempts])).toEqual([
      [30, 1],
      [30, 1],
    ]);
  });
  const rounds = async () => (await trialFound(who, trialId))?.rounds ?? [];
  it('a round is voided with its reason, once, and is to be run again', async () => {
    const visitId = await addVisit(who, place, Date.UTC(2025, 5, 1), run(1, 'a', 10));
    const [first] = await rounds();
    for (const reason of ['queue', 'another']) expect(await voidRound(who, { visitId, trialId, run: first?.id as string, reason })).toBeNull();
    expect(await rounds()).toMatchObject([{ voided: 'queue' }]);
    expect(await trialSteps(who)).toEqual({ [trialId]: [] });
  });
  it('of one that is run twice at one stop each is voided by itself', async () => {
    const again = run(1, 'a', 30).map(([at, ...what]): Step => [at + 300, ...what]);
    const visitId = await addVisit(who, place, Date.UTC(2025, 5, 1), [...run(1, 'a', 10).slice(0, -1), ...again]);
    const voided = async (nth: number) => {
      expect(await voidRound(who, { visitId, trialId, run: (await rounds())[nth]?.id as string, reason: `the ${nth}` })).toBeNull();
      return { are: (await rounds()).map((r) => [r.s, r.voided, r.repeated]), done: (await trialSteps(who))[trialId] };
    };
    expect(await voided(0)).toEqual({
      are: [
        [10, 'the 0', false],
        [30, null, false],
      ],
      done: ['1a'],
    });
    expect(await voided(1)).toEqual({
      are: [
        [10, 'the 0', false],
        [30, 'the 1', false],
      ],
      done: [],
    });
  });
  it('what is void stays so in the recording that it is joined into', async () => {
    const again = run(1, 'a', 30).map(([at, ...what]): Step => [at + 300, ...what]);
    const from = await addVisit(who, place, Date.UTC(2025, 5, 1), [...run(1, 'a', 10).slice(0, -1), ...again]);
    await voidRound(who, { visitId: from, trialId, run: (await rounds())[0]?.id as string, reason: 'queue' });
    const into = await addVisit(who, place, Date.UTC(2025, 5, 1, 0, 1), [[900, 'pulled_out', { reason: 'enough' }]]);
    expect(await joinVisits(who, { into, from })).toMatchObject({ ok: true });
    expect((await rounds()).map((r) => [r.visitId, r.voided])).toEqual([
      [into, 'queue'],
      [into, null],
    ]);
  });
  it('of what is not here, or another household’s, nothing is voided', async () => {
    const other = await newHousehold();
    const visitId = await addVisit(who, place, Date.UTC(2025, 5, 1), run(1, 'a', 10));
    const it = { visitId, trialId, run: (await rounds())[0]?.id as string, reason: 'x' };
    for (const body of [
      { ...it, visitId: v7() },
      { ...it, trialId: v7() },
      { ...it, run: v7() },
    ])
      expect(await voidRound(who, body)).not.toBeNull();
    expect(await voidRound(other, it)).toBe('That round is not known here.');
    expect(await trialFound(other, trialId)).toBeNull();
    // A reason is held to what words of a phone are.
    const said = await voidRound(who, { ...it, reason: 'paid with 4111 1111 1111 1111' });
    expect(said).toBe('This looks like a payment card number. Card numbers are never kept here.');
    expect((await trialFound(who, trialId))?.rounds).toMatchObject([{ voided: null }]);
  });
  it('that is over is offered no more', async () => {
    const found = await trialFound(who, trialId);
    await send(who, asRecords([{ ...plan({ endedOn: '2025-06-01' }), baseRev: found?.trial.rev ?? 0 }]));
    expect(await trialSteps(who)).toEqual({});
    expect((await trialFound(who, trialId))?.trial.fields.endedOn).toBe('2025-06-01');
  });
});

it('a seed is drawn from all that there are', () => {
  const seeds = new Set(Array.from({ length: 200 }, () => drawSeed(3)));
  expect([...seeds].sort()).toEqual([1, 2, 3]);
});
