import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { changeHousehold, changeName } from '../accounts/members';
import { pool } from '../db/pool';
import { asRecords, describeWithDatabase, newHousehold, send } from '../fixtures/household';
import type { Caller } from './caller';
import { tagged } from './tagged';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('the ETag of an answer', () => {
  it('holds until something is written, somebody or something is called otherwise, or money counts otherwise; whichever program asks', async () => {
    const who = await newHousehold();
    let caller: Caller = { ...who, householdName: 'Kolar', currency: 'EUR', zone: 'UTC', source: 'a program' };
    const url = 'http://x/api/v1/compare?by=site';
    const etagOf = async (at = url) => (await tagged(caller, new Request(at), async () => ({}))).headers.get('etag') ?? '';
    const seen = new Set([await etagOf()]);
    /** Whether an answer that was seen before still stands. */
    const stands = async (at = url) => {
      const tag = await etagOf(at);
      const is = seen.has(tag);
      seen.add(tag);
      return is;
    };
    expect(await stands()).toBe(true);
    caller = { ...caller, source: 'another' };
    expect(await stands()).toBe(true);
    expect(await stands(`${url}&and=hour`)).toBe(false);
    await send(who, asRecords([recordItem('network', v7(), { name: 'Bluebarn' })]));
    expect(await stands()).toBe(false);
    await changeName(who.personId, 'Ines K.');
    expect(await stands()).toBe(false);
    const called = { householdName: 'Kolar', currency: 'CZK', zone: 'UTC' };
    expect(await changeHousehold(who, called)).toBeNull();
    caller = { ...caller, ...called };
    expect(await stands()).toBe(false);
    const asked = (tag: string) => tagged(caller, new Request(url, { headers: { 'if-none-match': tag } }), async () => ({ now: 1 }));
    const tag = await etagOf();
    expect([(await asked(`"x", ${tag}`)).status, (await asked('*')).status, (await asked('"x"')).status]).toEqual([304, 304, 200]);
  });
});
