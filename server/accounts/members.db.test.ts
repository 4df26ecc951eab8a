import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { GIVEN_ROLES, type MemberRole } from '@/core/records/roles';
import { NO_WISHES } from '@/core/records/wishes';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, asRecords, describeWithDatabase, newHousehold, send } from '../fixtures/household';
import { ledgerEntries } from '../formats/ledger-out';
import { visitPage } from '../visits/visit-page';
import { accountOfPerson, signUp } from './accounts';
import { deleteHousehold, deletePerson } from './forget';
import { comeIn, endInvitation, invitationAt, invitationsOf, invite } from './invitations';
import { changeRole, changeWishes, endMembership, goTo, householdsOf, membersOf, startHousehold } from './members';
import { sessionOf, startSession } from './sessions';
import type { Who } from './who';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const invited = async (who: Who, role: MemberRole = 'driver') => {
  const made = await invite(who, role);
  if (!made.ok) throw new Error(made.reason);
  return made.code;
};
const account = (name = 'Tone Zupan') => ({ name, email: `${v7()}@example.invalid`, password: 'a long enough one' });
const come = async (code: string, person: Parameters<typeof comeIn>[1] = account()): Promise<Who> => {
  const joined = await comeIn(code, person);
  if (!joined.ok) throw new Error(joined.reason);
  return joined.who;
};
const nameAt = async (who: Who, visitId: string, personId: string) => {
  const page = await visitPage(who, visitId);
  return page && 'names' in page ? page.names.person(personId) : null;
};
const rolesOf = async (householdId: string) => (await membersOf(householdId)).filter((m) => m.leftAt === null).map((m) => m.role);

describeWithDatabase('the people of a household', () => {
  it('an invitation opens once, however it is typed; not twice at once, not ended, not after seven days', async () => {
    const who = await newHousehold();
    const code = await invited(who, 'reader');
    expect(await invitationAt(`${code.slice(0, 4).toLowerCase()}-${code.slice(4, 8)} ${code.slice(8)}`)).toMatchObject({
      role: 'reader',
      householdId: who.householdId,
    });
    const both = await Promise.all([comeIn(code, account()), comeIn(code, account())]);
    expect(both.map((j) => j.ok).sort()).toEqual([false, true]);
    expect(await rolesOf(who.householdId)).toEqual(['owner', 'reader']);
    expect(await invitationAt(code)).toBeNull();

    const ended = await invited(who);
    const [open] = await invitationsOf(who.householdId);
    const stranger = await newHousehold();
    expect(await endInvitation(stranger.householdId, open?.id as string)).toBe(false);
    expect(await endInvitation(who.householdId, open?.id as string)).toBe(true);
    expect(await comeIn(ended, account())).toEqual({ ok: false, reason: 'no_invitation' });

    const old = await invited(who);
    await pool().execute('UPDATE invitation SET expires_at = ? WHERE household_id = ? AND used_at IS NULL', [new Date(Date.now() - 1), toBin(who.householdId)]);
    expect(await invitationAt(old)).toBeNull();
    expect(await comeIn(old, account())).toEqual({ ok: false, reason: 'no_invitation' });
    expect(await invitationsOf(who.householdId)).toEqual([]);
  });
  it('an address that is taken uses nothing up; who belongs already stays what they are', async () => {
    const who = await newHousehold();
    const code = await invited(who, 'reader');
    const taken = account();
    await signUp({ ...taken, householdName: 'Elsewhere', currency: 'EUR', zone: 'UTC' });
    expect(await comeIn(code, taken)).toEqual({ ok: false, reason: 'email_taken' });
    expect(await come(code, who)).toEqual({ householdId: who.householdId, personId: who.personId });
    expect(await rolesOf(who.householdId)).toEqual(['owner']);
    expect(await invitationAt(code)).not.toBeNull();
  });
  it.each(GIVEN_ROLES)('a %s neither invites nor gives roles nor removes', async (role) => {
    const who = await newHousehold();
    const other = await addSomebody(who.householdId, role);
    const third = await addSomebody(who.householdId, 'driver');
    expect(await invite(other, 'driver')).toEqual({ ok: false, reason: 'Only the owner invites.' });
    expect(await changeRole(other, other.personId, 'owner')).toBe('Only the owner gives roles.');
    expect(await endMembership(other, third.personId)).toBe('Only the owner removes somebody.');
    expect(await deleteHousehold(other)).toBe('Only the owner deletes a household.');
    expect(await rolesOf(who.householdId)).toEqual(['owner', role, 'driver']);
  });
  it('there is one owner: handing over makes the one before a driver, and the owner cannot go', async () => {
    const who = await newHousehold();
    const other = await addSomebody(who.householdId, 'reader');
    expect(await endMembership(who, who.personId)).toMatch(/hands over first/);
    expect(await changeRole(who, who.personId, 'driver')).toMatch(/hand over/);
    expect(await changeRole(who, other.personId, 'owner')).toBeNull();
    expect(await rolesOf(who.householdId)).toEqual(['driver', 'owner']);
    expect(await changeRole(who, other.personId, 'driver')).toBe('Only the owner gives roles.');
    const stranger = await newHousehold();
    expect(await changeRole(other, stranger.personId, 'driver')).toBe('There is no such person here.');
  });
  it('who is removed is elsewhere at once, with an empty household of their own where they had none; what they recorded stays', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    const other = { ...(await come(await invited(who))), role: 'driver' as const };
    const visitId = await addVisit(other, place, Date.UTC(2025, 9, 1, 12));
    const { token } = await startSession(other.householdId, other.personId);
    expect(await endMembership(who, other.personId)).toBeNull();
    const session = await sessionOf(token);
    expect(session?.householdId).not.toBe(who.householdId);
    expect(session?.role).toBe('owner');
    expect((await householdsOf(other.personId)).map((h) => h.name)).toEqual(['Ledger of Tone Zupan']);
    expect((await accountOfPerson(other.personId))?.householdId).toBe(session?.householdId);
    expect(await nameAt(who, visitId, other.personId)).toBe('Tone Zupan');
    expect(await goTo({ ...other, sessionId: session?.sessionId as string }, who.householdId)).toBe(false);
    // Invited again they are back, once.
    await come(await invited(who, 'reader'), other);
    expect(await rolesOf(who.householdId)).toEqual(['owner', 'reader']);
  });
  it('an account goes between its households, and a sign-in leads where it was last', async () => {
    const who = await newHousehold();
    const second = await startHousehold(who.personId, { householdName: 'Second', currency: 'CHF', zone: 'Europe/Zurich' });
    const { token } = await startSession(who.householdId, who.personId);
    const session = await sessionOf(token);
    expect(await goTo({ ...who, sessionId: session?.sessionId as string }, second)).toBe(true);
    expect(await sessionOf(token)).toMatchObject({ householdId: second, currency: 'CHF', role: 'owner' });
    expect((await accountOfPerson(who.personId))?.householdId).toBe(second);
    const stranger = await newHousehold();
    expect(await goTo({ ...who, sessionId: session?.sessionId as string }, stranger.householdId)).toBe(false);
  });
  it('a household that is deleted leaves no row behind anywhere; its people keep their accounts', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    await addVisit(who, place, Date.UTC(2025, 9, 1, 12));
    const other = await come(await invited(who));
    await invited(who);
    const { token } = await startSession(other.householdId, other.personId);
    const bystander = await newHousehold();
    await addVisit(bystander, await addPlace(bystander), Date.UTC(2025, 9, 1, 12));
    const tables = await tablesWithHousehold();
    const before = await countOf(tables, bystander.householdId);
    expect(before).toBeGreaterThan(10);
    expect(await deleteHousehold(who)).toBeNull();
    expect(await countOf(tables, who.householdId)).toBe(0);
    expect(await countOf(tables, bystander.householdId)).toBe(before);
    expect((await sessionOf(token))?.personId).toBe(other.personId);
    expect((await householdsOf(who.personId)).length).toBe(1);
    expect(await deleteHousehold(who)).toBe('Only the owner deletes a household.');
  });
  it('who deletes their account is a former driver in what they recorded; an owner of others hands over first', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    const form = account();
    const other = { ...(await come(await invited(who), form)), role: 'driver' as const };
    const visitId = await addVisit(other, place, Date.UTC(2025, 9, 1, 12));
    expect(await deletePerson(who.personId)).toMatch(/hand it over first/);
    const alone = await startHousehold(other.personId, { householdName: 'Alone', currency: 'EUR', zone: 'UTC' });
    const { token } = await startSession(other.householdId, other.personId);
    expect(await deletePerson(other.personId)).toBeNull();
    expect(await sessionOf(token)).toBeNull();
    expect(await nameAt(who, visitId, other.personId)).toBe('a former driver');
    expect(await countOf(await tablesWithHousehold(), alone)).toBe(0);
    const [[row]] = (await pool().execute('SELECT name, email, password_hash FROM person WHERE id = ?', [toBin(other.personId)])) as unknown as [
      RowDataPacket[],
    ];
    expect(JSON.stringify(row)).not.toContain('Tone');
    // The address is free again.
    expect(await signUp({ ...form, householdName: 'Again', currency: 'EUR', zone: 'UTC' })).not.toBeNull();
    expect(await deletePerson(who.personId)).toBeNull();
  });
  it('the file that is taken along holds every record and event as it travels', async () => {
    const who = await newHousehold();
    const visitId = await addVisit(who, await addPlace(who), Date.UTC(2025, 9, 1, 12));
    let text = '';
    for await (const { content } of ledgerEntries({ ...who, householdName: 'test', currency: 'EUR', zone: 'UTC' })) text += content;
    const file = JSON.parse(text);
    expect(file).toMatchObject({ format: 'mile-ledger', version: 1, people: [{ personId: who.personId, role: 'owner' }] });
    expect(file.records.map((r: { type: string }) => r.type)).toEqual(['network', 'site', 'stall', 'stall']);
    expect(new Set(file.events.map((e: { visitId: string }) => e.visitId))).toEqual(new Set([visitId]));
    const empty = await newHousehold();
    let none = '';
    for await (const { content } of ledgerEntries({ ...empty, householdName: 'test', currency: 'EUR', zone: 'UTC' })) none += content;
    expect(JSON.parse(none)).toMatchObject({ records: [], events: [] });
  });
});

describeWithDatabase('what each role may write', () => {
  it('a reader nothing; an observer no record, no visit of their own, and into one that is open', async () => {
    const owner = await newHousehold();
    const place = await addPlace(owner);
    const [reader, observer] = [await addSomebody(owner.householdId, 'reader'), await addSomebody(owner.householdId, 'observer')];
    const at = Date.now() - 3600_000;
    const open = await addVisit(owner, place, at, [[30, 'plugged']]);
    const over = await addVisit(owner, place, at - 5 * 3600_000);
    const looks = ({ householdId, personId }: Who, visitId: string, more: object = {}) => [
      { type: 'event', event: { ...NOTE, householdId, personId, id: v7(), visitId, at: at + 60_000, deviceId: personId, life: personId, ...more } },
    ];
    const said = async (who: Parameters<typeof send>[0], items: object[]) => (await send(who, items))[0];
    expect(await said(reader, looks(reader, open))).toMatchObject({ status: 'refused', reason: expect.stringMatching(/You read this ledger/) });
    expect(await said(reader, asRecords([recordItem('network', v7(), { name: 'Ferrywell' })]))).toMatchObject({ status: 'refused' });
    expect(await said(observer, asRecords([recordItem('network', v7(), { name: 'Ferrywell' })]))).toMatchObject({
      status: 'refused',
      reason: expect.stringMatching(/look on/),
    });
    expect(await said(observer, looks(observer, open))).toMatchObject({ status: 'taken' });
    expect(await said(observer, looks(observer, open, { role: 'recorder' }))).toMatchObject({ status: 'refused', path: 'role' });
    expect(await said(observer, looks(observer, over))).toMatchObject({ status: 'refused', path: 'visitId' });
    expect(await said(observer, looks(observer, v7()))).toMatchObject({ status: 'refused', code: 'visit_unknown' });
    // Taking back: what they wrote themselves, nothing of another's, never the visit.
    const own = looks(observer, open);
    const ownId = own[0]?.event.id as string;
    await send(observer, own);
    const back = (target: string) => looks(observer, open, { kind: 'withdrawal', payload: { target } });
    expect(await said(observer, back(ownId))).toMatchObject({ status: 'taken' });
    expect(await said(observer, back(open))).toMatchObject({ status: 'refused', path: 'payload.target' });
    const theirs = looks(owner, open, { role: 'recorder' });
    await send(owner, theirs);
    expect(await said(observer, back(theirs[0]?.event.id as string))).toMatchObject({ status: 'refused', path: 'payload.target' });
  });
});

describeWithDatabase('what somebody wishes for', () => {
  it('is kept one by one, from wherever it comes, also at once; what is emptied is as usual', async () => {
    const who = await newHousehold();
    const { token } = await startSession(who.householdId, who.personId);
    const wishes = async () => (await sessionOf(token))?.wishes;
    await Promise.all([changeWishes(who.personId, { distance: 'mi' }), changeWishes(who.personId, { usualStop: '?kwh=30' })]);
    expect(await wishes()).toEqual({ ...NO_WISHES, distance: 'mi', usualStop: '?kwh=30' });
    await changeWishes(who.personId, { usualStop: null, emergencyNumber: '112' });
    expect(await wishes()).toEqual({ ...NO_WISHES, distance: 'mi', emergencyNumber: '112' });
  });
});

const NOTE = {
  kind: 'note',
  v: 1,
  precision: 'ms',
  zone: 'UTC',
  mono: 5000,
  awake: true,
  seq: 50,
  origin: 'tap',
  role: 'observer',
  payload: { text: 'windy' },
};

async function tablesWithHousehold(): Promise<string[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    "SELECT TABLE_NAME AS t FROM information_schema.columns WHERE TABLE_SCHEMA = DATABASE() AND COLUMN_NAME = 'household_id' AND TABLE_NAME <> 'person'",
  );
  return rows.map((r) => r.t);
}
/** Rows of a household over all these tables, and its own. */
async function countOf(tables: string[], householdId: string): Promise<number> {
  let n = 0;
  for (const t of tables) {
    const [rows] = await pool().execute<RowDataPacket[]>(`SELECT COUNT(*) AS n FROM \`${t}\` WHERE household_id = ?`, [toBin(householdId)]);
    n += Number(rows[0]?.n);
  }
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT COUNT(*) AS n FROM household WHERE id = ?', [toBin(householdId)]);
  return n + Number(rows[0]?.n);
}
