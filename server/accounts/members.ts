import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { MemberRole } from '@/core/records/roles';
import type { Wishes } from '@/core/records/wishes';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';
import { logSecurity } from './security-log';
import type { Who } from './who';

/** One of a household as its people see each other. `leftAt`: no longer of it; what they recorded stays. */
export type MemberRow = { personId: string; name: string; role: MemberRole; since: number; leftAt: number | null };

/** Everybody of a household, those who left last. */
export async function membersOf(householdId: string): Promise<MemberRow[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT m.person_id, m.role, m.since, m.left_at, p.name FROM member m JOIN person p ON p.id = m.person_id
      WHERE m.household_id = ? ORDER BY m.left_at IS NOT NULL, m.since, m.person_id`,
    [toBin(householdId)],
  );
  return rows.map((r) => ({
    personId: fromBin(r.person_id),
    name: r.name,
    role: r.role,
    since: (r.since as Date).getTime(),
    leftAt: r.left_at ? (r.left_at as Date).getTime() : null,
  }));
}

export type HouseholdRow = { householdId: string; name: string; role: MemberRole; people: number };

/** The households of a person, by name. */
export async function householdsOf(personId: string): Promise<HouseholdRow[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT h.id, h.name, m.role, (SELECT COUNT(*) FROM member o WHERE o.household_id = h.id AND o.left_at IS NULL) AS people
       FROM member m JOIN household h ON h.id = m.household_id WHERE m.person_id = ? AND m.left_at IS NULL ORDER BY h.name, h.id`,
    [toBin(personId)],
  );
  return rows.map((r) => ({ householdId: fromBin(r.id), name: r.name, role: r.role, people: Number(r.people) }));
}

export type NewHousehold = { householdName: string; currency: string; zone: string };

/** Makes a household without anybody in it, in a transaction of the caller's. */
export const addHousehold = (c: PoolConnection, form: NewHousehold, householdId: string) =>
  c.execute('INSERT INTO household (id, name, currency, zone, rev, created_at) VALUES (?, ?, ?, ?, 0, ?)', [
    toBin(householdId),
    form.householdName,
    form.currency,
    form.zone,
    new Date(now()),
  ]);

/** Makes somebody one of a household; who left before comes back. */
export const addMember = (c: PoolConnection, householdId: string, personId: string, role: MemberRole) =>
  c.execute('INSERT INTO member (household_id, person_id, role, since) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE role = VALUES(role), left_at = NULL', [
    toBin(householdId),
    toBin(personId),
    role,
    new Date(now()),
  ]);

/** Another household of one's own beside those one belongs to. @returns its id */
export async function startHousehold(personId: string, form: NewHousehold): Promise<string> {
  const householdId = v7();
  await inTransaction(async (c) => {
    await addHousehold(c, form, householdId);
    await addMember(c, householdId, personId, 'owner');
  });
  await logSecurity({ kind: 'household_made', householdId, personId });
  return householdId;
}

/** The role in which somebody belongs to a household, read under a lock; null when they do not. */
export async function roleForUpdate(c: PoolConnection, householdId: string, personId: string): Promise<MemberRole | null> {
  // The household's own row first: of two that change its people at once, one waits.
  await c.execute('SELECT id FROM household WHERE id = ? FOR UPDATE', [toBin(householdId)]);
  const [rows] = await c.execute<RowDataPacket[]>('SELECT role FROM member WHERE household_id = ? AND person_id = ? AND left_at IS NULL FOR UPDATE', [
    toBin(householdId),
    toBin(personId),
  ]);
  return rows[0]?.role ?? null;
}

/** From now on this browser's session, and the next sign-in, is in that household. @returns false for one the person does not belong to */
export async function goTo(who: Who & { sessionId: string }, householdId: string): Promise<boolean> {
  return inTransaction(async (c) => {
    if (!(await roleForUpdate(c, householdId, who.personId))) return false;
    await c.execute('UPDATE signed_in_session SET household_id = ? WHERE id = ? AND person_id = ?', [
      toBin(householdId),
      toBin(who.sessionId),
      toBin(who.personId),
    ]);
    await c.execute('UPDATE person SET household_id = ? WHERE id = ?', [toBin(householdId), toBin(who.personId)]);
    return true;
  });
}

/**
 * Takes a person's sessions, and the next sign-in, out of a household that they no longer belong to: into another of theirs,
 * else into an empty one of their own. An account always has somewhere to open.
 */
export async function moveOut(c: PoolConnection, householdId: string, personId: string): Promise<void> {
  const [theirs] = await c.execute<RowDataPacket[]>(
    'SELECT household_id FROM member WHERE person_id = ? AND left_at IS NULL AND household_id <> ? ORDER BY since LIMIT 1',
    [toBin(personId), toBin(householdId)],
  );
  let next = theirs[0] ? fromBin(theirs[0].household_id) : null;
  if (!next) {
    const [rows] = await c.execute<RowDataPacket[]>('SELECT p.name, h.currency, h.zone FROM person p JOIN household h ON h.id = ? WHERE p.id = ?', [
      toBin(householdId),
      toBin(personId),
    ]);
    next = v7();
    const r = rows[0] as RowDataPacket;
    await addHousehold(c, { householdName: `Ledger of ${r.name}`.slice(0, 80), currency: r.currency, zone: r.zone }, next);
    await addMember(c, next, personId, 'owner');
  }
  const values = [toBin(next), toBin(personId), toBin(householdId)];
  await c.execute('UPDATE signed_in_session SET household_id = ? WHERE person_id = ? AND household_id = ?', values);
  await c.execute('UPDATE person SET household_id = ? WHERE id = ? AND household_id = ?', values);
}

/**
 * Somebody is no longer of a household: removed by its owner, or gone by themselves. What they recorded stays the household's.
 * @returns why not, else null
 */
export async function endMembership(by: Who, personId: string): Promise<string | null> {
  const { householdId } = by;
  const why = await inTransaction(async (c) => {
    const [mine, theirs] = [await roleForUpdate(c, householdId, by.personId), await roleForUpdate(c, householdId, personId)];
    if (!theirs) return 'There is no such person here.';
    if (by.personId !== personId && mine !== 'owner') return 'Only the owner removes somebody.';
    if (theirs === 'owner') return 'The owner hands over first, or deletes the household.';
    await c.execute('UPDATE member SET left_at = ? WHERE household_id = ? AND person_id = ?', [new Date(now()), toBin(householdId), toBin(personId)]);
    await moveOut(c, householdId, personId);
    return null;
  });
  if (!why) await logSecurity({ kind: by.personId === personId ? 'left' : 'removed', householdId, personId });
  return why;
}

/** Gives somebody another role. `owner`: hands over, and who was the owner drives. @returns why not, else null */
export async function changeRole(by: Who, personId: string, role: MemberRole): Promise<string | null> {
  const { householdId } = by;
  const why = await inTransaction(async (c) => {
    if ((await roleForUpdate(c, householdId, by.personId)) !== 'owner') return 'Only the owner gives roles.';
    if (!(await roleForUpdate(c, householdId, personId))) return 'There is no such person here.';
    if (personId === by.personId) return role === 'owner' ? null : 'The owner stays the owner until another one is: hand over.';
    const set = (who: string, as: MemberRole) =>
      c.execute('UPDATE member SET role = ? WHERE household_id = ? AND person_id = ?', [as, toBin(householdId), toBin(who)]);
    await set(personId, role);
    if (role === 'owner') await set(by.personId, 'driver');
    return null;
  });
  if (!why) await logSecurity({ kind: role === 'owner' ? 'handed_over' : 'role_changed', householdId, personId });
  return why;
}

/** The household as it is called from now on. @returns why not, else null */
export async function changeHousehold(who: Who, form: NewHousehold): Promise<string | null> {
  return inTransaction(async (c) => {
    if ((await roleForUpdate(c, who.householdId, who.personId)) !== 'owner') return 'Only the owner changes the household.';
    await c.execute('UPDATE household SET name = ?, currency = ?, zone = ? WHERE id = ?', [
      form.householdName,
      form.currency,
      form.zone,
      toBin(who.householdId),
    ]);
    // Ledger figures count prices in the household's currency as they are read: nothing derived holds it.
    return null;
  });
}

export const changeName = (personId: string, name: string) => pool().execute('UPDATE person SET name = ? WHERE id = ?', [name, toBin(personId)]);

export const changeWishes = (personId: string, some: Partial<Wishes>) =>
  pool().execute("UPDATE person SET wishes = JSON_MERGE_PATCH(COALESCE(wishes, '{}'), ?) WHERE id = ?", [JSON.stringify(some), toBin(personId)]);
