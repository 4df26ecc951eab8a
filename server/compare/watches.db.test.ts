import { v7 } from 'uuid';
import { MOST_VIEWS } from '@/core/compare/saved-view';
import { MOST_WATCHED } from '@/core/compare/watch';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { describeWithDatabase, newHousehold } from '../fixtures/household';
import { removeView, savedViews, saveView } from './saved-views';
import { endWatch, putOnWatch, watchesOf } from './watches';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('pairs on watch', () => {
  let who: Member;
  let other: Member;
  beforeEach(async () => {
    [who, other] = [await newHousehold(), await newHousehold()];
  });
  const form = (more: object = {}) => ({ id: v7(), by: 'network' as const, a: v7(), b: v7(), figure: 'first_try' as const, ...more });

  it('are put once, either way round, from the moment of the server on', async () => {
    const one = form();
    const before = Date.now();
    expect(await putOnWatch(who, one)).toBeNull();
    expect(await putOnWatch(who, one)).toBeNull();
    expect(await putOnWatch(who, { ...one, id: v7(), a: one.b, b: one.a })).toBeNull();
    const [watch, ...more] = await watchesOf(who.householdId);
    expect(more).toEqual([]);
    expect([watch?.id, [watch?.a, watch?.b].sort(), watch?.figure]).toEqual([one.id, [one.a, one.b].sort(), 'first_try']);
    expect(watch?.since).toBeGreaterThanOrEqual(before - 1);
    // For the other figure it is another watch.
    expect(await putOnWatch(who, { ...one, id: v7(), figure: 'waiting' })).toBeNull();
    expect(await watchesOf(who.householdId, 'network')).toHaveLength(2);
    expect(await watchesOf(who.householdId, 'site')).toEqual([]);
  });
  it('at once by two people are one', async () => {
    const one = form();
    await Promise.all([putOnWatch(who, one), putOnWatch(who, { ...one, id: v7() }), putOnWatch(who, { ...one, id: v7() })]);
    expect(await watchesOf(who.householdId)).toHaveLength(1);
  });
  it('are ended, and put again they begin anew', async () => {
    const one = form();
    await putOnWatch(who, one);
    await endWatch(who, one.id);
    await endWatch(who, one.id);
    expect(await watchesOf(who.householdId)).toEqual([]);
    const again = v7();
    await putOnWatch(who, { ...one, id: again });
    expect((await watchesOf(who.householdId)).map((w) => w.id)).toEqual([again]);
  });
  it('are of two that differ, and few', async () => {
    const a = v7();
    expect(await putOnWatch(who, form({ a, b: a }))).toBe('Choose two different ones.');
    expect(await putOnWatch(who, form({ a: 'x' }))).toBe('That is not known here.');
    expect(await putOnWatch(who, form({ by: 'means', a: 'app', b: 'rfid' }))).toBeNull();
    for (let i = 1; i < MOST_WATCHED; i++) expect(await putOnWatch(who, form())).toBeNull();
    expect(await putOnWatch(who, form())).toMatch(/end one first/);
    expect(await watchesOf(who.householdId)).toHaveLength(MOST_WATCHED);
  });
  it('of another household are neither seen nor ended', async () => {
    const one = form();
    await putOnWatch(who, one);
    expect(await watchesOf(other.householdId)).toEqual([]);
    await endWatch(other, one.id);
    expect(await watchesOf(who.householdId)).toHaveLength(1);
  });
});

describeWithDatabase('saved comparisons', () => {
  let who: Member;
  beforeEach(async () => {
    who = await newHousehold();
  });
  it('are found by name; of the same name the last one stands', async () => {
    const id = v7();
    expect(await saveView(who, { id, name: 'Rain', address: '?by=weather' })).toBeNull();
    expect(await saveView(who, { id, name: 'Rain', address: '?by=weather' })).toBeNull();
    expect(await saveView(who, { id: v7(), name: 'rain', address: '?by=site&evil=1' })).toBeNull();
    expect((await savedViews(who.householdId)).map((v) => v.address)).toEqual(['?by=site']);
    expect(await savedViews((await newHousehold()).householdId)).toEqual([]);
  });
  it('one under another’s name takes its place', async () => {
    const [rain, sun] = [v7(), v7()];
    await saveView(who, { id: rain, name: 'Rain', address: '' });
    await saveView(who, { id: sun, name: 'Sun', address: '' });
    expect(await saveView(who, { id: rain, name: 'Sun', address: '?by=site' })).toBeNull();
    expect((await savedViews(who.householdId)).map((v) => [v.id, v.name])).toEqual([[rain, 'Sun']]);
  });
  it('are removed by their own household alone', async () => {
    const id = v7();
    await saveView(who, { id, name: 'Rain', address: '' });
    await removeView(await newHousehold(), id);
    expect(await savedViews(who.householdId)).toHaveLength(1);
    await removeView(who, id);
    await removeView(who, id);
    expect(await savedViews(who.householdId)).toEqual([]);
  });
  it('are no more than anybody finds again', async () => {
    for (let i = 0; i < MOST_VIEWS; i++) await saveView(who, { id: v7(), name: `View ${i}`, address: '' });
    expect(await saveView(who, { id: v7(), name: 'One more', address: '' })).toMatch(/remove one first/);
    expect(await saveView(who, { id: v7(), name: 'View 3', address: '?by=site' })).toBeNull();
    expect(await savedViews(who.householdId)).toHaveLength(MOST_VIEWS);
  });
});
