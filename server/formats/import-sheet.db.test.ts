import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { SheetAnswer } from '@/core/formats/sheet-import';
import type { SignedIn } from '../accounts/sessions';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, asRecords, describeWithDatabase, newHousehold, send, signedIn } from '../fixtures/household';
import { recordsOf } from '../records/record-tables';
import { markVisits } from '../visits/mark-visits';
import { visitPage } from '../visits/visit-page';
import { importSheet } from './import-sheet';
import { importedEvent, sendImported } from './imported-events';
import { undoSheet } from './undo-sheet';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));
const nothing = { answers: [], sites: [] };
const sheet = (...rows: string[]) => new TextEncoder().encode(['Start;Station;Energy (kWh);Cost (EUR)', ...rows].join('\n'));
const told = async (...of: Parameters<typeof importSheet>) => {
  const answer = await importSheet(...of);
  if (!answer.ok) throw new Error(answer.refused.code);
  return answer;
};

describeWithDatabase('a spreadsheet in a household of two', () => {
  let ines: SignedIn;
  let tone: SignedIn;
  const file = sheet('2025-10-14 13:52;Lipa Barn;41,37;23,10', '2025-10-15 13:52;Lipa Barn;12,5;6,00');
  beforeAll(async () => {
    const owner = await newHousehold();
    await addPlace(owner);
    ines = signedIn(owner);
    tone = signedIn(await addSomebody(owner.householdId, 'driver'));
  }, 30_000);

  it('sent by both at once comes in once', async () => {
    await Promise.all([told(ines, file, nothing, true), told(tone, file, nothing, true)]);
    for (const who of [ines, tone]) expect((await told(who, file, nothing, false)).preview.counts).toMatchObject({ there: 2, new: 0, near: 0 });
  });
  it('what one of them marked private the other neither finds by it nor takes back', async () => {
    const { preview } = await told(ines, file, nothing, false);
    const [first] = preview.rows.map((r) => r.visitId as string);
    const driver = (await markVisits(ines, { ids: [first], as: 'private' })).ok ? ines : tone;
    if (driver === tone) await markVisits(tone, { ids: [first], as: 'private' });
    const [one, two] = await Promise.all([ines, tone].map(async (who) => (await told(who, file, nothing, false)).preview.rows.map((r) => r.visitId)));
    // One of them sees it, the other is told only that it is there.
    expect([one, two].filter((ids) => ids?.includes(first as string))).toHaveLength(1);
    expect([one, two].filter((ids) => ids?.includes(null))).toHaveLength(1);
    const other = one?.includes(null) ? ines : tone;
    expect(await undoSheet(other, preview.importId)).toEqual({ undone: 1, next: null });
    expect((await told(other, file, nothing, true)).taken).toBe(1);
  });
});

describeWithDatabase('the sheet of visits that went out', () => {
  it('is known by its visits where they are, and is new elsewhere; a row with another time is another visit', async () => {
    const [here, elsewhere] = [await newHousehold(), await newHousehold()];
    const at = Date.UTC(2025, 9, 14, 13, 52);
    for (const who of [here, elsewhere]) await addPlace(who);
    const [place] = await recordsOf(here.householdId, 'site');
    // Power came late: by its times alone a row would be another visit.
    const visitId = await addVisit(here, { networkId: '', siteId: place?.id as string, stalls: [v7(), v7()] }, at, [
      [990, 'pulled_out', { reason: 'gave_up' }],
    ]);
    const row = (time: string) => `${visitId},${time},Lipa Barn,0,0.50,EUR`;
    const file = new TextEncoder().encode(
      ['visit,pulled in,site,delivered (kWh),paid,currency', row('2025-10-14T13:52:00Z'), row('2025-10-14'), row('2025-10-14T15:10:00Z')].join('\n'),
    );
    const plans = async (who: SignedIn) => (await told(who, file, nothing, false)).preview.rows.map((r) => [r.line, r.plan, r.visitId === visitId]);
    expect(await plans(signedIn(here))).toEqual([
      [2, 'there', true],
      [3, 'there', true],
      [4, 'new', false],
    ]);
    expect((await plans(signedIn(elsewhere))).map(([, plan]) => plan)).toEqual(['new', 'new', 'new']);
  });
});

describeWithDatabase('a spreadsheet of places that were put away since', () => {
  it('comes in there, unless what is in use has the name; what is put away stays so', async () => {
    const who = await newHousehold();
    const closed = await addPlace(who);
    const putAway = async (type: string, id: string) =>
      expect((await send(who, asRecords([{ type, id, baseRev: 1, archived: true, fields: {} }])))[0]?.status).toBe('taken');
    await putAway('site', closed.siteId);
    const rows = sheet('2025-10-14 13:52;lipa barn / 2;41,37;23,10', '2025-10-15 13:52;Nowhere;12,5;6,00');
    const { preview } = await told(signedIn(who), rows, nothing, false);
    expect(preview.counts).toMatchObject({ new: 1, place: 1 });
    expect(preview.proposed.sites.map(([name]) => name)).toEqual(['Nowhere']);
    expect(await told(signedIn(who), rows, nothing, true)).toMatchObject({ taken: 1 });
    const sitesOf = async () => {
      const [found] = await pool().query<RowDataPacket[]>('SELECT site_id FROM visit WHERE household_id = ? ORDER BY sort_at', [toBin(who.householdId)]);
      return found.map((r) => r.site_id && fromBin(r.site_id));
    };
    expect(await sitesOf()).toEqual([closed.siteId]);
    const open = await addPlace(who, { network: 'Bluebarn Two', site: 'Lipa Barn' });
    expect(await told(signedIn(who), sheet('2025-10-16 13:52;Lipa Barn;12,5;6,00'), nothing, true)).toMatchObject({ taken: 1 });
    expect(await sitesOf()).toEqual([closed.siteId, open.siteId]);
  });
  it('of several sites of one name each is known by its network; without that none is meant, nor a post of two that are called the same', async () => {
    const who = signedIn(await newHousehold());
    const [one, two] = [await addPlace(who), await addPlace(who, { network: 'Otterbrook', site: 'Lipa Barn' })];
    expect((await told(who, sheet('2025-10-14 13:52;Lipa Barn;41,37;23,10'), nothing, true)).preview.counts).toMatchObject({ which: 1, new: 0, there: 0 });
    const stall = { type: 'stall', id: two.stalls[1], baseRev: 1000, fields: { name: '1' } };
    expect(await send(who, asRecords([stall]))).toMatchObject([{ status: 'taken' }]);
    const rows = ['2025-10-14 13:52;Lipa Barn;Otterbrook;1;9,5', '2025-10-15 13:52;Lipa Barn;bluebarn;1;9,5', '2025-10-16 13:52;Lipa Barn;Elsewhere;1;9,5'];
    const file = new TextEncoder().encode(['Start;Station;Network;Stall;Energy (kWh)', ...rows].join('\n'));
    expect(await told(who, file, nothing, true)).toMatchObject({ taken: 2, preview: { counts: { which: 1, there: 2 } } });
    const [found] = await pool().query<RowDataPacket[]>(
      'SELECT v.site_id, (SELECT a.stall_id FROM attempt_figures a WHERE a.household_id = v.household_id AND a.visit_id = v.id) AS stall_id FROM visit v WHERE v.household_id = ? ORDER BY v.sort_at',
      [toBin(who.householdId)],
    );
    expect(found.map((r) => [fromBin(r.site_id), r.stall_id && fromBin(r.stall_id)])).toEqual([
      [two.siteId, null],
      [one.siteId, one.stalls[0]],
    ]);
  });
  it('a site that the file made and that is called otherwise by now is another than the one that is made of its name again; its network stays one', async () => {
    const who = signedIn(await newHousehold());
    const make = { answers: [], sites: [{ name: 'City Hall', network: 'Bluebarn' }] };
    expect(await told(who, sheet('2025-10-14 13:52;City Hall;41,37;23,10'), make, true)).toMatchObject({ taken: 1 });
    for (const type of ['site', 'network'] as const) {
      const [one] = await recordsOf(who.householdId, type);
      await send(who, asRecords([{ type, id: one?.id, baseRev: one?.rev, fields: { name: `The old ${type}` } }]));
    }
    const later = sheet('2025-10-16 13:52;City Hall;12,5;6,00');
    expect((await told(who, later, nothing, false)).preview.counts).toMatchObject({ place: 1 });
    expect(await told(who, later, make, true)).toMatchObject({ taken: 1, preview: { counts: { there: 1, place: 0 } } });
    expect(await told(who, later, make, true)).toMatchObject({ taken: 0 });
    expect((await recordsOf(who.householdId, 'site')).map((s) => s.fields.name).sort()).toEqual(['City Hall', 'The old site']);
    expect((await recordsOf(who.householdId, 'network')).map((n) => n.fields.name)).toEqual(['The old network']);
  });
});

describeWithDatabase('a spreadsheet that was taken back', () => {
  const head = 'Start;Station;Energy (kWh);Cost (EUR);Note';
  const of = (...rows: string[]) => new TextEncoder().encode([head, ...rows].join('\n'));
  const first = '2025-10-14 13:52;Lipa Barn;41,37;23,10;';
  const second = '2025-10-15 13:52;Lipa Barn;12,5;6,00;wet';
  let who: SignedIn;
  beforeEach(async () => {
    who = signedIn(await newHousehold());
  });
  const notes = async () => {
    const [found] = await pool().query<RowDataPacket[]>(
      "SELECT JSON_VALUE(e.payload, '$.text') AS text FROM event e JOIN visit v ON v.household_id = e.household_id AND v.id = e.visit_id WHERE v.household_id = ? AND v.withdrawn = FALSE AND e.kind = 'note'",
      [toBin(who.householdId)],
    );
    return found.map((r) => r.text);
  };
  const standing = async () => {
    const [[found]] = await pool().query<RowDataPacket[]>('SELECT COUNT(*) AS n FROM visit WHERE household_id = ? AND withdrawn = FALSE', [
      toBin(who.householdId),
    ]);
    return Number(found?.n);
  };
  const importOf = async (file: Uint8Array) => (await told(who, file, nothing, false)).preview.importId;

  it('comes in again with what its rows tell by now, and as it was where they tell the same', async () => {
    await addPlace(who);
    const [before, mended] = [of(first, second), of(`${first}by the barn`, second)];
    await told(who, before, nothing, true);
    expect(await undoSheet(who, await importOf(before))).toMatchObject({ undone: 2 });
    expect(await told(who, mended, nothing, true)).toMatchObject({ taken: 2 });
    expect((await notes()).sort()).toEqual(['by the barn', 'wet']);
    expect(await standing()).toBe(2);
    expect((await told(who, mended, nothing, false)).preview.counts).toMatchObject({ there: 2, new: 0 });
    // As it was before, a row may be the visit that stands by now: that is asked.
    expect((await told(who, before, nothing, false)).preview.counts).toMatchObject({ there: 1, near: 1 });
    // All that came with it goes with it, what it brought back too.
    expect(await undoSheet(who, await importOf(mended))).toMatchObject({ undone: 2 });
    expect(await standing()).toBe(0);
    expect(await told(who, mended, nothing, true)).toMatchObject({ taken: 2 });
    expect([await standing(), (await notes()).sort()]).toEqual([2, ['by the barn', 'wet']]);
  });

  it('can come to stand beside another visit than before', async () => {
    const place = await addPlace(who);
    const at = Date.UTC(2025, 9, 20, 12);
    const charged = new Date(at + 60_000).toISOString().slice(0, 16).replace('T', ' ');
    const file = of(`${charged};Lipa Barn;12,5;6,00;`);
    const merge = { answers: [{ code: 'near', lines: [2], answer: 'merge' }], sites: [] };
    const one = await addVisit(who, place, at);
    expect((await told(who, file, nothing, false)).preview.counts).toMatchObject({ near: 1 });
    expect(await told(who, file, merge, true)).toMatchObject({ taken: 1, preview: { counts: { there: 1 } } });
    expect((await told(who, file, nothing, false)).preview.counts).toMatchObject({ there: 1, near: 0 });
    expect(await undoSheet(who, await importOf(file))).toMatchObject({ undone: 1 });
    await sendImported(who, [
      importedEvent(who, { id: v7(), visitId: one, zone: 'UTC', seq: 900, kind: 'withdrawal', payload: { target: one }, importId: await importOf(file) }),
    ]);
    const two = await addVisit(who, place, at);
    const twice = async () => {
      // Taken back, brought in again and taken back: the visit that is recorded stays, whatever goes from beside it.
      expect(await told(who, file, merge, true)).toMatchObject({ taken: 1 });
      expect(await undoSheet(who, await importOf(file))).toEqual({ undone: 1, next: null });
      expect(await standing()).toBe(1);
    };
    await twice();
    await twice();
    await twice();
    expect(await told(who, file, merge, true)).toMatchObject({ taken: 1 });
    expect((await told(who, file, nothing, false)).preview.counts).toMatchObject({ there: 1, near: 0 });
    const page = await visitPage(who, two);
    expect(page && 'visit' in page ? page.visit.bills.map((b) => b.payload.amount) : []).toEqual(['6']);
  });
});

describeWithDatabase('rows that are refused', () => {
  it('are told by the thousand, or all of them; lines that are no rows are counted', async () => {
    const who = signedIn(await newHousehold());
    const file = sheet(
      ...Array.from({ length: 1200 }, (_, i) => `2025-10-14 25:00;Lipa Barn;${i};1`),
      ...Array.from({ length: 1100 }, () => ' ; '),
      'Total;;9;9',
    );
    const { preview } = await told(who, file, nothing, false);
    expect([preview.refused.length, preview.counts.refused, preview.skipped]).toEqual([1000, 1200, { blank: 1100, totals: 1 }]);
    const all = (await told(who, file, { ...nothing, allRefused: true }, false)).preview.refused;
    expect([all.length, all.at(-1)?.cells[2]]).toEqual([1200, '1199']);
  });

  it('are read, once mended, as was said of the sheet that they are of; nothing of why comes in', async () => {
    const who = signedIn(await newHousehold());
    await addPlace(who);
    const text = (heading: string, ...rows: string[]) => new TextEncoder().encode([heading, ...rows].join('\n'));
    const HEAD = 'Start;Station;Energy';
    const answers = [
      { code: 'date_order', answer: 'dmy' },
      { code: 'energy_unit', column: 3, answer: 'kWh' },
    ];
    const whole = text(HEAD, '03/04/2025 10:00;Lipa Barn;12.5', '05/04/2025 25:00;Lipa Barn;9.5');
    expect(await told(who, whole, { answers, sites: [] }, true)).toMatchObject({ taken: 1, preview: { counts: { refused: 1 } } });
    const mended = text(`${HEAD};why it was refused`, '05/04/2025 15:00;Lipa Barn;9.5;line 3: no time');
    const { preview } = await told(who, mended, { answers: null, sites: [] }, true);
    expect(preview).toMatchObject({ remembered: true, counts: { there: 1 }, rows: [{ start: Date.UTC(2025, 3, 5, 15) }] });
    const page = await visitPage(who, preview.rows[0]?.visitId as string);
    expect(JSON.stringify(page)).not.toContain('line 3');
    expect(JSON.stringify(page)).toContain('9.5');
  });
});

describeWithDatabase('what was said of a sheet', () => {
  it('and taken back again is not remembered; what corrects it is, whatever the next one proves', async () => {
    const who = signedIn(await newHousehold());
    await addPlace(who);
    const next = async (row: string) => {
      const { preview } = await told(who, sheet(row), { answers: null, sites: [] }, false);
      return [preview.remembered, preview.rows[0] && new Date(preview.rows[0].start).toISOString().slice(0, 10), preview.counts.refused];
    };
    const first = sheet('2025-10-14 13:52;Lipa Barn;41,37;23,10');
    expect(await told(who, first, { answers: [{ code: 'dates', column: null, answer: null }], sites: [] }, true)).toMatchObject({ taken: 1 });
    expect(await next('13/10/2025 10:00;Lipa Barn;41,37;23,10')).toEqual([false, '2025-10-13', 0]);
    const second = sheet('04/10/2025 13:52;Lipa Barn;40,37;23,10');
    expect(await told(who, second, { answers: [{ code: 'dates', column: null, answer: 'mdy' }], sites: [] }, true)).toMatchObject({ taken: 1 });
    expect(await next('05/10/2025 10:00;Lipa Barn;41,37;23,10')).toEqual([true, '2025-05-10', 0]);
    expect(await next('13/10/2025 10:00;Lipa Barn;41,37;23,10')).toEqual([true, undefined, 1]);
  });
});

describeWithDatabase('rows near recorded visits', () => {
  it('are counted whole, also those that are not listed, and put beside all at once but for those of which something else was said', async () => {
    const who = signedIn(await newHousehold());
    const place = await addPlace(who);
    const days = [0, 1, 2].map((d) => Date.UTC(2025, 9, 14 + d, 12));
    for (const at of days) await addVisit(who, place, at);
    const file = sheet(...days.map((at, i) => `${new Date(at + 50_000).toISOString()};Lipa Barn;12,5;${i === 2 ? '' : '6,00'}`));
    const after = async (...answers: SheetAnswer[]) => {
      const { counts, nearBills, accepted } = (await told(who, file, { answers, sites: [] }, false)).preview;
      return { near: counts.near, merge: counts.merge, new: counts.new, nearBills, accepted };
    };
    expect(await after()).toEqual({ near: 3, merge: 0, new: 0, nearBills: 2, accepted: 3 });
    const all: SheetAnswer = { code: 'near', answer: 'merge' };
    expect(await after(all)).toEqual({ near: 1, merge: 2, new: 0, nearBills: 0, accepted: 3 });
    expect(await after(all, { code: 'near', lines: [2], answer: 'new' })).toEqual({ near: 1, merge: 1, new: 1, nearBills: 0, accepted: 3 });
  });
});

describeWithDatabase('rows that are long', () => {
  it('come in though together they are more than the database takes at once', async () => {
    const owner = await newHousehold();
    await addPlace(owner);
    // Three bytes a letter, 300 rows: some 17 MB of one transaction, where a statement may have 16 MiB.
    const said = '充'.repeat(19_000);
    const rows = Array.from({ length: 300 }, (_, i) => `${new Date(Date.UTC(2020, 0, 1 + i)).toISOString().slice(0, 10)};Lipa Barn;${10 + (i % 60)};${said}`);
    const file = new TextEncoder().encode(['Date;Station;Energy (kWh);Said beside', ...rows].join('\n'));
    const { taken, left, preview } = await told(signedIn(owner), file, nothing, true);
    expect([taken, left, preview.counts.there]).toEqual([300, 0, 300]);
  }, 60_000);
});
