import { findBest, findScore } from '@/core/records/find-text';
import type { Found } from '@/core/records/findables';
import type { Step } from '@/core/visit/fixtures/story';
import { visitCode } from '@/core/visit/visit-code';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addVisit, describeWithDatabase, newHousehold } from '../fixtures/household';
import { findEverything } from './find-everything';

const FAILED: Step[] = [
  [10, 'plugged'],
  [60, 'fault', { code: 'start_error', side: 'network' }],
  [90, 'pulled_out', { reason: 'gave_up' }],
];

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('finding by asking the database', () => {
  let member: Member;
  let _householdId: string;
  const visitIds: string[] = [];
  beforeAll(async () => {
    const who = await newHousehold();
    member = who;
    _householdId = who.householdId;
    const names: [string, string][] = [
      ['Bluebarn', 'Žaga Mill'],
      ['Saltmarsh Rapid', 'Vrba Crossing'],
      ['Ferrywell', 'Brod'],
      ['Ferrywell East', 'Brod Landing'],
      ['Copperbeech', 'Old Brodland'],
    ];
    for (const [i, [network, site]] of names.entries()) {
      const place = await addPlace(who, { network, site });
      visitIds.push(await addVisit(who, place, Date.UTC(2025, 9, 10 + i, 12), i === 2 ? FAILED : undefined));
    }
  }, 30_000);

  it.each(['brod', 'BROD', 'zaga', 'žaga mill', 'vrba 2', 'stall 1 brod', 'ferrywell', 'landing east', 'mill', 'br', '%', "o'brod", 'brod_', 'xyz'])(
    '%s: the same answers in the same order as the rules of core give',
    async (typed) => {
      const found = (await findEverything(member, typed)).filter((f) => f.kind !== 'visit');
      const all = (await Promise.all(['a', 'e', 'i', 'o', 'l', 'r', 's', 't'].map((letter) => findEverything(member, letter)))).flat();
      const every = [...new Map(all.filter((f) => f.kind !== 'visit').map((f) => [f.id, f])).values()];
      const wanted = findBest(typed, every, 12);
      expect(new Set(found.map((f) => f.id))).toEqual(new Set(wanted.map((f) => f.id)));
      // Equal ones may stand in either order.
      const scores = (list: Found[]) => list.map((f) => findScore(typed, f.text) + (f.weight ?? 0));
      expect(scores(found)).toEqual(scores(wanted));
    },
  );
  it('visits by place and date, the newest first of those that answer alike', async () => {
    const visits = async (typed: string) => (await findEverything(member, typed)).filter((f) => f.kind === 'visit').map((f) => f.label);
    expect(await visits('vrba oct')).toEqual(['Vrba Crossing, 11 Oct 2025']);
    expect(await visits('2025-10-12')).toEqual(['Brod, 12 Oct 2025']);
    expect((await visits('visit october 2025'))[0]).toContain('14 Oct');
    expect(await visits('12 oct')).toEqual(['Brod, 12 Oct 2025']);
  });
  it('visits by their code and by what went wrong there', async () => {
    const visits = async (typed: string) => (await findEverything(member, typed)).filter((f) => f.kind === 'visit').map((f) => f.id);
    for (const id of visitIds) {
      expect((await visits(visitCode(id)))[0]).toBe(id);
      expect(await visits(visitCode(id).slice(0, 4).toLowerCase())).toContain(id);
    }
    expect(await visits('start error')).toEqual([visitIds[2]]);
    expect(await visits('brod start error oct')).toEqual([visitIds[2]]);
    expect(await visits('stall dark')).toEqual([]);
  });
  it('nothing of another household, and nothing for nothing', async () => {
    const stranger = await newHousehold();
    expect(await findEverything(stranger, 'brod')).toEqual([]);
    expect(await findEverything(member, '  ')).toEqual([]);
  });
});
