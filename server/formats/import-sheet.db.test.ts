import { readWishes } from '@/core/records/wishes-form';
import type { SignedIn } from '../accounts/sessions';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addSomebody, describeWithDatabase, newHousehold } from '../fixtures/household';
import { markVisits } from '../visits/mark-visits';
import { importSheet } from './import-sheet';
import { undoSheet } from './undo-sheet';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));
const signedIn = (who: Member): SignedIn => ({
  ...who,
  sessionId: who.personId,
  name: 'test',
  householdName: 'test',
  currency: 'EUR',
  zone: 'Europe/Ljubljana',
  wishes: readWishes(null),
});
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
