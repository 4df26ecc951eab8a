import { v7 } from 'uuid';
import { cdrOf } from '@/core/formats/fixtures/cdr';
import { DEFINITION_VERSION } from '@/core/visit/definitions-version';
import type { Member } from '../accounts/who';
import { binLiteral } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, describeWithDatabase, newHousehold, signedIn } from '../fixtures/household';
import { markVisits } from '../visits/mark-visits';
import { previewCdrs } from './import-cdrs';
import { importSheet } from './import-sheet';
import { sessionsAround } from './visits-around';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const AT = Date.UTC(2025, 9, 14, 12);
const DAY = 86_400_000;
const idsAround = async (who: Member, ...at: number[]) => [...((await sessionsAround(who, at))?.visits.keys() ?? ['too many'])].sort();

describeWithDatabase('sessions recorded around what a file tells of', () => {
  it('are worked out once while nothing is written and the same times are asked', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    const visitId = await addVisit(who, place, AT);
    const first = await sessionsAround(who, [AT, AT + DAY]);
    expect(first?.attempts).toMatchObject([{ visitId, n: 1, site: 'Lipa Barn', stall: '1', kWh: '12.5' }]);
    expect(await sessionsAround(who, [AT, AT + DAY])).toBe(first);
    expect(await idsAround(who, AT + 9 * DAY)).toEqual([]);
    expect((await sessionsAround(who, [AT, AT + DAY], new Set([visitId])))?.attempts).toEqual([]);
    expect(await idsAround(who, AT, AT + DAY)).toEqual([visitId]);
    // While one waits for its figures it may yet stand elsewhere.
    await pool().query(`UPDATE visit SET stale = TRUE WHERE household_id = ${binLiteral(who.householdId)}`);
    const waiting = await sessionsAround(who, [AT - DAY]);
    const settled = await sessionsAround(who, [AT - DAY]);
    expect(settled).not.toBe(waiting);
    expect(settled).toEqual(waiting);
    expect(await sessionsAround(who, [AT - DAY])).toBe(settled);
    // What is written meanwhile is seen.
    const second = await addVisit(who, place, AT + DAY);
    expect(await idsAround(who, AT, AT + DAY)).toEqual([visitId, second].sort());
  });

  it('are those that this person sees, in this household', async () => {
    const who = await newHousehold();
    const other = await addSomebody(who.householdId, 'driver');
    const visitId = await addVisit(who, await addPlace(who), AT);
    expect(await idsAround(other, AT)).toEqual([visitId]);
    const elsewhere = { ...(await newHousehold()), personId: who.personId };
    expect(await idsAround(who, AT)).toEqual([visitId]);
    expect(await idsAround(elsewhere, AT)).toEqual([]);
    await markVisits(who, { ids: [visitId], as: 'private' });
    expect(await idsAround(other, AT)).toEqual([]);
    expect(await idsAround(who, AT)).toEqual([visitId]);
  });

  it('are not cut off without a word where they are too many: the file is refused, and what is further off does not count', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    const fill = (n: number, at: number) =>
      pool().query(
        `INSERT INTO visit (household_id, id, rev, stale, definition_version, person_id, sort_at) VALUES
         ${Array.from({ length: n }, () => `(${binLiteral(who.householdId)}, ${binLiteral(v7())}, 1, FALSE, ${DEFINITION_VERSION}, ${binLiteral(who.personId)}, '${new Date(at).toISOString().slice(0, 19)}')`).join()}`,
      );
    await fill(20_000, AT + 9 * DAY);
    await fill(20_000, AT - DAY);
    const sheet = new TextEncoder().encode(`Start;Station;Energy (kWh)\n${new Date(AT).toISOString()};Lipa Barn;12,5\n`);
    const cdrs = new TextEncoder().encode(JSON.stringify([cdrOf({ start: AT, end: AT + 1_800_000 })]));
    const nothing = { answers: [], sites: [] };
    expect(await importSheet(signedIn(who), sheet, nothing, false)).toMatchObject({ ok: true });
    await addVisit(who, place, AT + DAY);
    expect(await importSheet(signedIn(who), sheet, nothing, false)).toEqual({ ok: false, refused: { code: 'too_many_visits', where: null } });
    expect(await previewCdrs(who, cdrs)).toEqual({ ok: false, refused: { code: 'too_many_visits' } });
  }, 60_000);
});
