import { v7 } from 'uuid';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { findEverything } from '../find/find-everything';
import { addPlace, addSomebody, addVisit, CHARGED, describeWithDatabase, newHousehold, type Place } from '../fixtures/household';
import { ledgerEntries } from '../formats/ledger-out';
import { siteList } from '../places/site-list';
import { sitePage } from '../places/site-page';
import { compareRows } from './compare-query';
import { joinVisits } from './join-visits';
import { ledgerPage } from './ledger-query';
import { markVisits } from './mark-visits';
import { summedUp } from './summed-up';
import { visitPage } from './visit-page';
import { visitTitle } from './visit-title';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));
const all = readLedgerFilter(() => null);

describeWithDatabase('a visit marked private', () => {
  let ines: Member;
  let tone: Member;
  let place: Place;
  let hers: string;
  let his: string;
  beforeAll(async () => {
    ines = await newHousehold();
    tone = await addSomebody(ines.householdId, 'driver');
    place = await addPlace(ines);
    const bill = [1000, 'bill', { sessions: [], amount: '5.00', currency: 'EUR', kWh: '12.5', state: 'charged' }] as const;
    const fault = [5.5, 'fault', { code: 'screen_dark', side: 'site' }] as const;
    hers = await addVisit(ines, place, Date.UTC(2025, 9, 14, 12), [[...fault], ...CHARGED, [...bill]]);
    his = await addVisit(tone, place, Date.UTC(2025, 9, 15, 12));
    expect(await markVisits(ines, { ids: [hers], as: 'private' })).toEqual({ ok: true, changed: 1 });
  }, 30_000);

  it('shows the others its day, its kWh and money, and its driver all of it', async () => {
    const rowOf = async (who: Member) => (await ledgerPage(who, 'EUR', all)).rows.find((r) => r.id === hers);
    expect(await rowOf(ines)).toMatchObject({
      isPrivate: false,
      siteId: place.siteId,
      siteName: 'Lipa Barn',
      faultCodes: ['screen_dark'],
      kWh: '12.500',
      paid: '5.000000',
    });
    expect(await rowOf(tone)).toMatchObject({
      isPrivate: true,
      siteId: null,
      siteName: null,
      networkName: null,
      faultCodes: [],
      tape: [],
      handshake_s: null,
      timeKnown: false,
      paid: '5.000000',
    });
    expect(await visitPage(ines, hers)).toHaveProperty('names');
    const page = await visitPage(tone, hers);
    expect(Object.keys(page ?? {})).toEqual(['privateVisit']);
    expect(page).toMatchObject({ privateVisit: { driver: 'test', paid: { known: true, value: { amount: '5' } } } });
    expect(JSON.stringify(page)).not.toContain(place.siteId);
  });
  it('is called by its place and day to its driver alone, and to no other household', async () => {
    const stranger = await newHousehold();
    expect(await Promise.all([ines, tone, stranger].map((who) => visitTitle(who, hers)))).toEqual(['Lipa Barn, 14 Oct 2025', null, null]);
    expect(await Promise.all([ines, tone, stranger].map((who) => visitTitle(who, his)))).toEqual(['Lipa Barn, 15 Oct 2025', 'Lipa Barn, 15 Oct 2025', null]);
    expect(await visitTitle(ines, 'none')).toBeNull();
  });
  it.each([
    ['its site', (p: Place) => ({ site: p.siteId })],
    ['its network', (p: Place) => ({ network: p.networkId })],
    ['its faults', () => ({ faults: 'any' })],
    ['its means', () => ({ means: 'contactless' as const })],
    ['words', () => ({ text: 'lipa' })],
    ['its mark', () => ({ only: 'private' as const })],
    ['what it counts for', () => ({ counted: 'first_yes' as const })],
  ])('is not found out by asking for %s', async (_what, filter) => {
    const asked = async (who: Member) => (await ledgerPage(who, 'EUR', { ...all, ...filter(place) })).rows.map((r) => r.id);
    expect(await asked(tone)).not.toContain(hers);
    const { total } = await ledgerPage(tone, 'EUR', { ...all, ...filter(place) });
    expect(total.visits).toBe((await asked(tone)).length);
  });
  it('counts in sums of the ledger for everybody, and by its driver', async () => {
    for (const who of [ines, tone]) {
      expect((await ledgerPage(who, 'EUR', all)).total.visits).toBe(2);
      expect((await ledgerPage(who, 'EUR', { ...all, driver: ines.personId })).rows.map((r) => r.id)).toEqual([hers]);
    }
  });
  it('counts for its driver alone in comparisons, at places and at stalls; Find and the file know it for them alone', async () => {
    const seen = async (who: Member) => {
      let file = '';
      for await (const { content } of ledgerEntries({ ...who, householdName: 'test', currency: 'EUR', zone: 'UTC' })) file += content;
      const page = await sitePage(who, place.siteId, undefined, 'EUR');
      const sums = await summedUp(who, Math.floor(Math.random() * 1e9));
      return {
        compared: (
          await compareRows(
            who,
            'EUR',
            readLedgerFilter(() => null),
            { visit: ['leftOut'], attempt: ['outcome'] },
          )
        ).length,
        atSite: (await siteList(who)).find((s) => s.id === place.siteId)?.visits,
        onPage: page?.visits,
        faults: page?.faults.length,
        lately: sums.lately[place.stalls[0]]?.length,
        found: (await findEverything(who, '14 oct')).filter((f) => f.kind === 'visit').length,
        inFile: file.includes(hers),
      };
    };
    expect(await seen(ines)).toEqual({ compared: 2, atSite: 2, onPage: 2, faults: 1, lately: 2, found: 1, inFile: true });
    expect(await seen(tone)).toEqual({ compared: 1, atSite: 1, onPage: 1, faults: 0, lately: 1, found: 0, inFile: false });
  });
  it('is neither marked nor taken into another by the others, and shows itself again when it is plain', async () => {
    for (const as of ['plain', 'business', 'withdraw']) expect(await markVisits(tone, { ids: [his, hers], as })).toMatchObject({ ok: false });
    expect(await joinVisits(tone, { into: his, from: hers })).toMatchObject({ ok: false, reason: expect.stringMatching(/not known/) });
    expect(await joinVisits(tone, { into: hers, from: his })).toMatchObject({ ok: false });
    expect(await markVisits(ines, { ids: [hers], as: 'plain' })).toEqual({ ok: true, changed: 1 });
    expect(await visitPage(tone, hers)).toHaveProperty('names');
  });
});

describeWithDatabase('marking several visits at once', () => {
  it('all or none, once, each back again', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    const ids = [await addVisit(who, place, Date.UTC(2025, 9, 14, 12)), await addVisit(who, place, Date.UTC(2025, 9, 15, 12))];
    const asked = async (only: 'business' | 'left_out') => (await ledgerPage(who, 'EUR', { ...all, only })).rows.map((r) => r.id).sort();
    expect(await markVisits(who, { ids: [...ids, v7()], as: 'business' })).toMatchObject({ ok: false });
    expect(await asked('business')).toEqual([]);
    expect(await markVisits(who, { ids: [...ids, ids[0]], as: 'business' })).toEqual({ ok: true, changed: 2 });
    expect(await markVisits(who, { ids, as: 'business' })).toEqual({ ok: true, changed: 0 });
    expect(await asked('business')).toEqual([...ids].sort());
    expect(await markVisits(who, { ids: [ids[0]], as: 'plain' })).toEqual({ ok: true, changed: 1 });
    expect(await asked('business')).toEqual([ids[1]]);
    expect(await markVisits(who, { ids, as: 'left_out', reason: ' ' })).toMatchObject({ ok: false, reason: expect.stringMatching(/why/) });
    expect(await markVisits(who, { ids, as: 'left_out', reason: 'a trial' })).toEqual({ ok: true, changed: 2 });
    expect(await asked('left_out')).toEqual([...ids].sort());
    expect(await markVisits(who, { ids, as: 'counted' })).toEqual({ ok: true, changed: 2 });
    expect(await asked('left_out')).toEqual([]);
    expect(await markVisits(who, { ids, as: 'withdraw' })).toEqual({ ok: true, changed: 2 });
    expect((await ledgerPage(who, 'EUR', all)).rows).toEqual([]);
    expect(await markVisits(who, { ids: [ids[0]], as: 'restore' })).toEqual({ ok: true, changed: 1 });
    expect((await ledgerPage(who, 'EUR', all)).rows.map((r) => r.id)).toEqual([ids[0]]);
    const stranger = await newHousehold();
    expect(await markVisits(stranger, { ids, as: 'business' })).toMatchObject({ ok: false });
    for (const odd of [{}, { ids: [], as: 'business' }, { ids, as: 'gone' }, { ids: ['x'], as: 'business' }])
      expect((await markVisits(who, odd)).ok).toBe(false);
  });
});
