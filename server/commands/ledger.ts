// One household's ledger out into a file, or in from one, in its owner's name. Run by bin/ledger.
import { createWriteStream, openAsBlob } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { RowDataPacket } from 'mysql2/promise';
import { openLedger, proposedPeople } from '@/core/formats/ledger-file';
import { refusedWords } from '@/core/formats/ledger-refused-words';
import { membersOf } from '../accounts/members';
import { now } from '../clock';
import { fromBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { bringIn } from '../formats/bring-in';
import { ledgerZip } from '../formats/ledger-out';

/** What stands in the way, in a sentence. */
class Cannot extends Error {}

const [what, file, called, look] = process.argv.slice(2);

async function owned() {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT h.id, h.name, h.currency, h.zone, m.person_id FROM household h
       JOIN member m ON m.household_id = h.id AND m.role = 'owner' AND m.left_at IS NULL ORDER BY h.name, h.id`,
  );
  const found = rows.filter((r) => !called || r.name === called || fromBin(r.id) === called);
  // Two may have one name: then the id tells them apart.
  const named = rows.map((r) => (rows.some((other) => other !== r && other.name === r.name) ? `“${r.name}” ${fromBin(r.id)}` : `“${r.name}”`));
  const there = named.length > 0 ? named.join(', ') : 'none yet: open the application and make the first account';
  if (found.length !== 1) throw new Cannot(`Which household? Say --household with its name, or with its id where two have one name. There is: ${there}.`);
  const r = found[0] as RowDataPacket;
  return { householdId: fromBin(r.id), personId: fromBin(r.person_id), role: 'owner' as const, householdName: r.name, currency: r.currency, zone: r.zone };
}

async function out(to: string): Promise<void> {
  const who = await owned();
  const part = `${to}.part`;
  try {
    await pipeline(Readable.fromWeb(ledgerZip(who, new Date(now())) as never), createWriteStream(part, { flags: 'wx', mode: 0o600 }));
    // It gets its name once it is whole and can be read.
    const read = await openLedger(await openAsBlob(part));
    if (!read.ok) throw new Error(JSON.stringify(read.refused));
    await rename(part, to);
    const { head } = read.value;
    const events = head.events.length + head.parts.reduce((n, p) => n + p.events, 0);
    console.log(`${to}: ${who.householdName}, ${head.records.length} records, ${events} events, ${head.photos.length} photos`);
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  }
}

async function bring(from: string): Promise<void> {
  const who = await owned();
  const read = await openLedger(await openAsBlob(from));
  if (!read.ok) throw new Cannot(`This file cannot be read. ${refusedWords(read.refused)}`);
  const here = (await membersOf(who.householdId)).filter((m) => m.leftAt === null);
  // A terminal asks nobody: whoever is not told by account or name is the owner, and it is said.
  const people = Object.fromEntries([...proposedPeople(read.value.head.people, here)].map(([id, to]) => [id, to ?? who.personId]));
  for (const p of read.value.head.people) console.log(`${p.name} of the file is ${here.find((h) => h.personId === people[p.personId])?.name} here`);
  const all = await bringIn(who, read.value, { people, theirs: {} }, look !== 'look');
  for (const t of all.twins) console.log(`HERE     ${t.type}${t.name === '' ? '' : ` ${t.name}`}: under another id`);
  for (const d of all.differs) console.log(`DIFFERS  ${d.kind} ${d.id} ${d.what}: stays as it is here`);
  for (const r of all.refused) console.log(`REFUSED  ${r.kind} ${r.id}: ${r.path} ${r.reason}`);
  for (const name of all.photos.refused) console.log(`REFUSED  photo ${name}`);
  const { record, event, watch, view, closed } = all.taken;
  console.log(
    `${look === 'look' ? 'Would bring' : 'Brought'} into ${who.householdName}: ${record} records, ${event} events, ${watch} pairs on watch, ${view} saved comparisons, ${closed} closed months, ${all.photos.taken} photos; ${all.already} were here already, ${all.differs.length} differ, ${all.refused.length} refused.`,
  );
  if (all.stopped) throw new Cannot(`It could not be read to its end. ${refusedWords(all.stopped)} · What came before that is in.`);
}

try {
  if (what === 'out' && file) await out(file);
  else if (what === 'in' && file) await bring(file);
  else throw new Cannot('out FILE or in FILE');
} catch (error) {
  console.error(error instanceof Cannot ? error.message : error);
  process.exitCode = 1;
} finally {
  await pool().end();
}
