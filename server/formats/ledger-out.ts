import { createHash } from 'node:crypto';
import { configure, type ZipWriter as Writer, ZipWriter } from '@zip.js/zip.js';
import type { RowDataPacket } from 'mysql2/promise';
import { EVENTS_FORMAT, LEDGER_ENTRY, photoEntry } from '@/core/formats/ledger-file';
import { LEDGER_FORMAT, LEDGER_VERSION } from '@/core/formats/ledger-schema';
import type { RecordType } from '@/core/records/record-types';
import { inReferenceOrder } from '@/core/records/reference-order';
import { RECORD_TYPES } from '@/core/records/types/registry';
import { byId } from '@/core/units/by-id';
import type { StoredEvent } from '@/core/visit/event';
import { inRecordOrder } from '@/core/visit/record-order';
import { membersOf } from '../accounts/members';
import type { Who } from '../accounts/who';
import { closedMonths } from '../compare/closed-months';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { readPhoto } from '../photos/photo-table';
import { recordsSince } from '../records/record-tables';
import { eventsOfVisits } from '../visits/event-rows';
import { visitPortions } from './visit-portions';

configure({ useWebWorkers: false });

/** Events of one file of the zip, characters: a reader holds one of them at a time. */
const PART = 8_000_000;

/** What a place is and what it costs there. */
const PLACES = ['network', 'provider', 'plan', 'site', 'stall', 'tariff'] as const satisfies readonly RecordType[];

/** A file of the zip. `stored`: packed already. */
export type LedgerEntry = { name: string; content: string | Buffer; stored: boolean };
/** Whose ledger goes out, and what its household is called. */
export type LedgerOf = Who & { householdName: string; currency: string; zone: string };

/**
 * Everything that was recorded in a household, file by file: its people, its records of every type, its events, each as it travels, the pairs on watch, the saved
 * comparisons, the closed months and the pictures that any of these speaks of. Visits that are private to somebody else are left out, and their pictures with them. What names
 * records comes before them, so that a visit recorded meanwhile finds its site.
 * @param only `places`: the places and prices alone, without visits, people or cars: for somebody who starts
 */
export async function* ledgerEntries(of: LedgerOf, only?: 'places'): AsyncGenerator<LedgerEntry> {
  const { householdId, householdName, currency, zone } = of;
  const pictures = new Set<string>();
  const parts: { name: string; events: number }[] = [];
  let texts: string[] = [];
  let size = 0;
  const part = (): LedgerEntry => {
    const name = `events-${parts.length + 1}.json`;
    parts.push({ name, events: texts.length });
    const content = `{"format":"${EVENTS_FORMAT}","version":${LEDGER_VERSION},"events":[${texts.join(',')}]}`;
    texts = [];
    size = 0;
    return { name, content, stored: false };
  };
  for await (const e of only ? [] : eventsSeen(of)) {
    const text = JSON.stringify(e);
    for (const [name] of text.matchAll(/[0-9a-f]{64}/g)) pictures.add(name);
    if (size + text.length > PART && texts.length > 0) yield part();
    texts.push(text);
    size += text.length;
  }
  if (parts.length > 0 && texts.length > 0) yield part();
  // By their ids: when one was last changed is of this household alone.
  const all = byId(await recordsSince(householdId, -1, only ? PLACES : RECORD_TYPES));
  const records = inReferenceOrder(all, (r) => r).map(({ rev: _, ...record }) => record);
  const recordText = JSON.stringify(records);
  for (const [name] of recordText.matchAll(/[0-9a-f]{64}/g)) pictures.add(name);
  const photos: { name: string; stored: string; personId: string }[] = [];
  for (const photo of await photosOf(householdId)) {
    const bytes = pictures.has(photo.name) ? await readPhoto(householdId, photo.name) : null;
    if (!bytes) continue;
    photos.push({ ...photo, stored: createHash('sha256').update(bytes).digest('hex') });
    yield { name: photoEntry(photo.name), content: bytes, stored: true };
  }
  const people = (only ? [] : await membersOf(householdId)).map((m) => ({ personId: m.personId, name: m.name, role: m.role }));
  const rest = {
    parts,
    watches: only ? [] : await watchesOf(householdId),
    views: only ? [] : await viewsOf(householdId),
    closed: only ? [] : await closedMonths(of),
    photos,
  };
  const head = { format: LEDGER_FORMAT, version: LEDGER_VERSION, household: { id: householdId, name: householdName, currency, zone }, people };
  const content = `${JSON.stringify(head).slice(0, -1)},"records":${recordText},"events":[${texts.join(',')}],${JSON.stringify(rest).slice(1)}`;
  yield { name: LEDGER_ENTRY, content, stored: false };
}

/** The events of every visit that this person sees, visit by visit, in their order. */
async function* eventsSeen(who: Who): AsyncGenerator<StoredEvent> {
  for await (const ids of visitPortions(who)) {
    const byVisit = await eventsOfVisits(who.householdId, ids);
    for (const id of ids) yield* inRecordOrder(byVisit.get(id) ?? []);
  }
}

async function photosOf(householdId: string): Promise<{ name: string; personId: string }[]> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT sha256, person_id FROM photo WHERE household_id = ? ORDER BY sha256', [toBin(householdId)]);
  return rows.map((r) => ({ name: (r.sha256 as Buffer).toString('hex'), personId: fromBin(r.person_id) }));
}

async function watchesOf(householdId: string) {
  const [rows] = await pool().execute<RowDataPacket[]>(
    'SELECT id, by_what, key_a, key_b, figure, since, ended_at, put_by FROM watch WHERE household_id = ? ORDER BY id',
    [toBin(householdId)],
  );
  return rows.map((r) => ({
    id: fromBin(r.id),
    by: r.by_what,
    a: r.key_a,
    b: r.key_b,
    figure: r.figure,
    since: (r.since as Date).getTime(),
    endedAt: r.ended_at ? (r.ended_at as Date).getTime() : null,
    putBy: fromBin(r.put_by),
  }));
}

async function viewsOf(householdId: string) {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT id, name, address, saved_by, saved_at FROM saved_view WHERE household_id = ? ORDER BY id', [
    toBin(householdId),
  ]);
  return rows.map((r) => ({ id: fromBin(r.id), name: r.name, address: r.address, savedBy: fromBin(r.saved_by), savedAt: (r.saved_at as Date).getTime() }));
}

/** The zip of a ledger as a stream: it is never in memory whole. @param at the time its entries bear */
export function ledgerZip(of: LedgerOf, at: Date, only?: 'places'): ReadableStream<Uint8Array> {
  const through = new TransformStream<Uint8Array, Uint8Array>();
  const zip = new ZipWriter(through.writable, { lastModDate: at });
  void write(zip, of, only).catch((error) => {
    console.error('a ledger was not written to its end', error);
    return through.writable.abort(error).catch(() => {});
  });
  return through.readable;
}

async function write(zip: Writer<unknown>, of: LedgerOf, only?: 'places'): Promise<void> {
  for await (const { name, content, stored } of ledgerEntries(of, only)) {
    const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : new Uint8Array(content);
    await zip.add(name, new Blob([bytes]).stream(), stored ? { level: 0 } : {});
  }
  await zip.close();
}
