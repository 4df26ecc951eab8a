import type { RowDataPacket } from 'mysql2/promise';
import { MOST_TOKENS } from '@/core/records/token-form';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addSomebody, describeWithDatabase, newHousehold } from '../fixtures/household';
import { deleteHousehold, deletePerson } from './forget';
import { changeRole, endMembership } from './members';
import { setPassword } from './recovery';
import { endToken, makeToken, tokenOf, tokensOf } from './tokens';
import type { Member } from './who';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const made = async (who: Member, more: { write?: boolean; households?: string[]; name?: string } = {}): Promise<string> => {
  const answer = await makeToken(who.personId, { name: 'van', write: false, households: [who.householdId], ...more });
  if (!('token' in answer)) throw new Error(answer.reason);
  return answer.token;
};

describeWithDatabase('tokens of programs', () => {
  it('are kept as a hash alone, open what was chosen, and say when they were used', async () => {
    const who = await newHousehold();
    const token = await made(who, { write: true });
    expect(token).toMatch(/^mile_[\w-]{43}$/);
    const [rows] = await pool().execute<RowDataPacket[]>('SELECT * FROM api_token WHERE person_id = ?', [toBin(who.personId)]);
    expect(JSON.stringify(rows)).not.toContain(token.slice(5));
    expect((await tokensOf(who.personId))[0]).toMatchObject({ name: 'van', write: true, lastUsedAt: null, households: ['test'] });
    expect(await tokenOf(token)).toMatchObject({
      personId: who.personId,
      name: 'van',
      write: true,
      households: [{ householdId: who.householdId, role: 'owner' }],
    });
    expect((await tokensOf(who.personId))[0]?.lastUsedAt).toBeGreaterThan(Date.now() - 60_000);
    for (const other of ['', 'mile_', `${token}x`, token.slice(5), `mile_${'x'.repeat(200)}`, token.toUpperCase()]) expect(await tokenOf(other)).toBeNull();
  });
  it('are ended by their person alone, at once and for good', async () => {
    const [who, other] = [await newHousehold(), await newHousehold()];
    const token = await made(who);
    const [row] = await tokensOf(who.personId);
    await endToken(other.personId, row?.id as string);
    expect(await tokenOf(token)).not.toBeNull();
    await endToken(who.personId, row?.id as string);
    await endToken(who.personId, row?.id as string);
    expect(await tokenOf(token)).toBeNull();
    expect(await tokensOf(who.personId)).toEqual([]);
  });
  it('open no household that is not their person’s, and are few', async () => {
    const [who, other] = [await newHousehold(), await newHousehold()];
    expect(await makeToken(who.personId, { name: 'x', write: false, households: [who.householdId, other.householdId] })).toEqual({
      reason: 'There is no such household of yours.',
    });
    // The same household twice is one.
    await made(who, { households: [who.householdId, who.householdId] });
    for (let i = 1; i < MOST_TOKENS; i++) await made(who);
    expect(await makeToken(who.personId, { name: 'x', write: false, households: [who.householdId] })).toEqual({
      reason: expect.stringMatching(/end one first/),
    });
    expect(await tokensOf(who.personId)).toHaveLength(MOST_TOKENS);
  });
  it('may what their person may that day, and nothing where they no longer belong', async () => {
    const owner = await newHousehold();
    const driver = await addSomebody(owner.householdId, 'driver');
    const token = await made(driver, { write: true });
    const roles = async () => (await tokenOf(token))?.households.map((h) => h.role);
    expect(await roles()).toEqual(['driver']);
    expect(await changeRole(owner, driver.personId, 'reader')).toBeNull();
    expect(await roles()).toEqual(['reader']);
    expect(await endMembership(owner, driver.personId)).toBeNull();
    expect(await roles()).toEqual([]);
  });
  it('are over with the password that they were made under', async () => {
    const [who, other] = [await newHousehold(), await newHousehold()];
    const [token, theirs] = [await made(who), await made(other)];
    await setPassword(who, 'another long enough one', null);
    expect(await tokenOf(token)).toBeNull();
    expect(await tokenOf(theirs)).not.toBeNull();
  });
  it('go with their person and with their household', async () => {
    const [who, alone] = [await newHousehold(), await newHousehold()];
    const [token, other] = [await made(who), await made(alone)];
    expect(await deleteHousehold(who)).toBeNull();
    expect((await tokenOf(token))?.households).toEqual([]);
    expect(await deletePerson(alone.personId)).toBeNull();
    expect(await tokenOf(other)).toBeNull();
  });
});
