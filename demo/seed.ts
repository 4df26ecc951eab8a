// Fills the demo's database once, by the same way that a phone's events take.
import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { simulateVisit } from '@/core/simulator/simulate-visit';
import type { StoredEvent } from '@/core/visit/event';
import { DEMO_EMAIL, signUp } from '@/server/accounts/accounts';
import { toBin } from '@/server/db/binary-id';
import { pool } from '@/server/db/pool';
import { takeBatch } from '@/server/outbox/take-batch';
import { keepPhoto } from '@/server/photos/photo-table';
import { typedIn, withNotes } from './asides';
import { billed } from './bills';
import { entrancePicture } from './entrance-picture';
import { demoId, demoRandom } from './ids';
import { demoRecords } from './records';
import { ines } from './scenario';
import { trialRecord, trialVisits } from './trial';
import { demoVisits } from './visits';
import { demoWatch } from './watch';

const who = { householdId: ines.householdId, personId: ines.personId };

async function take(items: object[]): Promise<void> {
  const result = await takeBatch({ ...who, role: 'owner' }, { items });
  if (!result.ok) throw new Error(result.reason);
  const bad = result.results.find((r) => r.status !== 'taken' && r.status !== 'already');
  if (bad) throw new Error(`the demo holds an item that is refused: ${bad.id} ${bad.path} ${bad.reason}`);
}

/** A correction or withdrawal made by hand a while after the visit. */
function afterwards(events: readonly StoredEvent[], kind: 'correction' | 'withdrawal' | 'hold_released', payload: Record<string, unknown>): StoredEvent {
  const last = events.at(-1) as StoredEvent;
  const at = last.at + 3 * 3_600_000;
  return { ...last, id: demoId(at), kind, at, mono: last.mono + 3 * 3_600_000, seq: last.seq + 1, payload };
}

const [done] = await pool().execute<RowDataPacket[]>('SELECT COUNT(*) AS n FROM event WHERE household_id = ?', [toBin(who.householdId)]);
if (Number(done[0]?.n) === 0) {
  const started = Date.now();
  // Nobody knows this password: the demo is opened by one press.
  await signUp(
    { name: ines.name, householdName: ines.householdName, email: DEMO_EMAIL, password: crypto.randomUUID(), currency: ines.currency, zone: ines.zone },
    who,
  );
  const picture = await entrancePicture();
  const photo = createHash('sha256').update(picture).digest('hex');
  await keepPhoto(who, photo, picture);
  const records = demoRecords(photo);
  await take(records.map((record) => ({ type: 'record', record })));
  const { plans, wrong } = demoVisits();
  const played = withNotes(
    billed(
      plans.map((plan) => simulateVisit(plan, { random: demoRandom, newId: demoId })),
      records,
      wrong,
    ),
  );
  const visits = plans.map((plan, i) => ({ plan, events: played[i] as StoredEvent[] }));

  // One bill was typed with a slip and put right; one visit was a press by mistake and taken back.
  const corrected = visits.find((v) => v.plan.bill && v.events.some((e) => e.kind === 'bill') && v.plan.at > Date.parse('2025-06-01'));
  const bill = corrected?.events.find((e) => e.kind === 'bill');
  if (corrected && bill) {
    const right = bill.payload.amount as string;
    bill.payload = { ...bill.payload, amount: String(Number(right) * 10) };
    corrected.events.push(afterwards(corrected.events, 'correction', { target: bill.id, set: { amount: right } }));
  }
  const mistaken = visits.find((v) => v.plan.at > Date.parse('2025-02-10') && v.plan.attempts.length === 1);
  if (mistaken) mistaken.events.push(afterwards(mistaken.events, 'withdrawal', { target: mistaken.plan.visitId }));

  // Her bank tells when a hold is free again: of all but the last somebody noted it.
  const held = visits.filter((v) => v.events.some((e) => e.payload.holdAmount !== undefined));
  for (const [i, v] of held.slice(0, -1).entries()) {
    const shown = v.events.findLast((e) => e.payload.holdAmount !== undefined) as StoredEvent;
    const on = new Date(shown.at + (1 + ((i * 5) % 7)) * 86_400_000).toISOString().slice(0, 10);
    for (const e of v.events.filter((x) => x.payload.holdAmount !== undefined)) v.events.push(afterwards(v.events, 'hold_released', { hold: e.id, on }));
  }

  await take([{ type: 'record', record: trialRecord() }]);
  for (const events of [...visits.map((v) => v.events), ...trialVisits(), typedIn()]) await take(events.map((event) => ({ type: 'event', event })));
  const { id, by, a, b, figure, since } = demoWatch;
  // The page takes the moment of the press: a watch of some time ago is put in here.
  await pool().execute('INSERT INTO watch (household_id, id, by_what, key_a, key_b, figure, since, put_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?)', [
    toBin(who.householdId),
    toBin(id),
    by,
    a,
    b,
    figure,
    new Date(since),
    toBin(who.personId),
  ]);
  console.log(
    `demo ledger written: ${visits.length + 3} visits, ${visits.reduce((n, v) => n + v.events.length, 0)} events, in ${((Date.now() - started) / 1000).toFixed(1)} s`,
  );
}
await pool().end();
