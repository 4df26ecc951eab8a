import { v7 } from 'uuid';
import { cdrOf } from '@/core/formats/fixtures/cdr';
import type { SheetAnswer } from '@/core/formats/sheet-import';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, describeWithDatabase, newHousehold, signedIn } from '../fixtures/household';
import { joinVisits } from '../visits/join-visits';
import { markVisits } from '../visits/mark-visits';
import { takeCdrs } from './import-cdrs';
import { importSheet } from './import-sheet';
import { importedEvent, sendImported } from './imported-events';
import { importsMade as allMade } from './imports-made';
import { undoSheet } from './undo-sheet';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const importsMade = async (who: Member) => (await allMade(who)).imports;
const AT = Date.UTC(2025, 9, 14, 12);
const DAY = 86_400_000;
const sheet = (...rows: string[]) => new TextEncoder().encode(['Start;Station;Energy (kWh);Cost (EUR)', ...rows].join('\n'));
const row = (at: number) => `${new Date(at).toISOString()};Lipa Barn;12,5;6,25`;

describeWithDatabase('what was brought in', () => {
  it('is told by the record, newest first, to whoever sees it, and says what of it stands', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    await addVisit(who, place, AT);
    expect(await importsMade(who)).toEqual([]);
    const answers: SheetAnswer[] = [{ code: 'near', answer: 'merge' }];
    const file = sheet(row(AT + 50_000), row(AT + DAY), row(AT + 3 * DAY));
    const taken = await importSheet(signedIn(who), file, { answers, sites: [] }, true);
    if (!taken.ok) throw new Error();
    const { importId, rows } = taken.preview;
    const made = { id: importId, kind: 'sheet', by: 'test', visits: 2, standing: 2, bills: 1, from: AT + 50_000, to: AT + 3 * DAY };
    expect(await importsMade(who)).toMatchObject([made]);
    // A program's events are no import, nor is another household's.
    const program = v7();
    await sendImported(who, [
      importedEvent(who, { id: v7(), visitId: v7(), zone: 'UTC', seq: 1, kind: 'pulled_in', payload: { source: 'car' }, importId: program }),
    ]);
    expect(await importsMade(who)).toHaveLength(1);
    expect(await importsMade(await newHousehold())).toEqual([]);
    // One that is private to somebody else is not told of.
    const driver = await addSomebody(who.householdId, 'driver');
    const later = rows.find((r) => r.start === AT + 3 * DAY)?.visitId as string;
    expect(await markVisits(who, { ids: [later], as: 'private' })).toMatchObject({ ok: true });
    expect(await importsMade(driver)).toMatchObject([{ visits: 1, to: AT + DAY }]);
    // A copy in the recording that one was joined into is no visit of its own.
    const other = rows.find((r) => r.start === AT + DAY)?.visitId as string;
    const near = await addVisit(who, place, AT + DAY + 3_600_000);
    expect(await joinVisits(who, { into: near, from: other })).toMatchObject({ ok: true });
    expect(await importsMade(who)).toMatchObject([{ visits: 2, standing: 1 }]);

    const start = AT + 5 * DAY;
    await addVisit(who, place, start);
    const charging_periods = [{ start_date_time: new Date(start + 50_000).toISOString(), dimensions: [{ type: 'ENERGY', volume: 12.5 }] }];
    const cdr = new TextEncoder().encode(JSON.stringify([cdrOf({ start: start + 50_000, end: start + 905_000 }, { charging_periods, total_energy: 12.5 })]));
    expect(await takeCdrs(who, cdr, new Map())).toMatchObject({ taken: 1 });
    expect(await importsMade(who)).toMatchObject([{ kind: 'cdrs', visits: 0, bills: 1 }, { id: importId }]);
    // Without its file, by its id alone.
    expect(await undoSheet(who, importId)).toEqual({ undone: 3, next: null });
    expect((await importsMade(who)).find((i) => i.id === importId)).toMatchObject({ visits: 2, standing: 0, bills: 0 });
    // Brought in again its bill stands once more: what had taken it back is taken back.
    const again = await importSheet(signedIn(who), file, { answers: [{ code: 'near', lines: [2], answer: 'merge' }], sites: [] }, true);
    expect(again.ok && again.taken).toBeGreaterThan(0);
    expect((await importsMade(who)).find((i) => i.id === importId)).toMatchObject({ bills: 1 });
  });
});
