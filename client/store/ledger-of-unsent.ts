import { BlobReader, BlobWriter, configure, TextReader, ZipWriter } from '@zip.js/zip.js';
import { LEDGER_ENTRY, photoEntry } from '@/core/formats/ledger-file';
import { LEDGER_FORMAT, LEDGER_VERSION } from '@/core/formats/ledger-schema';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { inReferenceOrder } from '@/core/records/reference-order';
import { byId } from '@/core/units/by-id';
import { inRecordOrder } from '@/core/visit/record-order';
import type { KeptElsewhere } from './kept-elsewhere';
import type { KeptEvent, PhoneStore, Whose } from './phone-store';

// Its workers would have to be fetched.
configure({ useWebWorkers: false });

const NOT_SAID: Whose = { name: 'Somebody', householdName: 'A household', currency: 'EUR', zone: 'UTC' };

/**
 * What waits in a store as a ledger that can be brought in (docs/formats.md): what this person recorded of the visits of which something is not at the server, whole, the
 * records that it names as they are on this device, changes that were not taken, and the pictures that wait.
 * @param of whose store it is
 */
export async function ledgerOfUnsent(
  store: PhoneStore,
  { householdId, personId, whose }: Pick<KeptElsewhere, 'householdId' | 'personId' | 'whose'>,
): Promise<Blob> {
  const said = whose ?? NOT_SAID;
  const kept = (await store.getAll('event')).filter((k) => k.event.personId === personId);
  const photos = (await store.getAll('photo')).filter((p) => p.state === 'kept');
  // A picture that waits is nothing without what speaks of it, though that was sent.
  const waits = (k: KeptEvent) => k.state !== 'sent' || photos.some((p) => JSON.stringify(k.event.payload).includes(p.sha256));
  const visits = new Set(kept.flatMap((k) => (waits(k) ? [k.event.visitId] : [])));
  const events = inRecordOrder(kept.flatMap((k) => (visits.has(k.event.visitId) ? [k.event] : [])));
  const mine = [
    ...(await store.getAll('outbox')).flatMap((e) => (e.type === 'record' ? [e.item] : [])),
    ...(await store.getAll('unsettled')).map((u) => u.mine),
  ];
  const records = named(await store.getAll('record'), mine, JSON.stringify(events));

  const zip = new ZipWriter(new BlobWriter('application/zip'));
  for (const p of photos) await zip.add(photoEntry(p.sha256), new BlobReader(p.bytes), { level: 0 });
  const head = {
    format: LEDGER_FORMAT,
    version: LEDGER_VERSION,
    household: { id: householdId, name: said.householdName, currency: said.currency, zone: said.zone },
    people: [{ personId, name: said.name, role: 'driver' }],
    records: records.map(({ type, id, archived = false, fields }) => ({ type, id, archived, fields })),
    events,
    parts: [],
    watches: [],
    views: [],
    closed: [],
    // As they left the camera's program: the server has not drawn them anew.
    photos: photos.map((p) => ({ name: p.sha256, stored: p.sha256, personId })),
  };
  await zip.add(LEDGER_ENTRY, new TextReader(JSON.stringify(head)));
  return zip.close();
}

/** The records that something names, by its text or by each other, in the order in which they refer to each other; what was changed here as it was changed. */
function named(all: readonly MileRecord[], mine: readonly RecordItem[], text: string): Pick<RecordItem, 'type' | 'id' | 'archived' | 'fields'>[] {
  type One = Pick<RecordItem, 'type' | 'id' | 'archived' | 'fields'>;
  const here = new Map<string, One>([...all, ...mine].map((r) => [r.id, r]));
  const out = new Set<One>(mine.flatMap((r) => here.get(r.id) ?? []));
  for (let look = [text, ...[...out].map((r) => JSON.stringify(r.fields))]; look.length > 0; ) {
    const found = [...here.values()].filter((r) => !out.has(r) && look.some((t) => t.includes(r.id)));
    for (const r of found) out.add(r);
    look = found.map((r) => JSON.stringify(r.fields));
  }
  return inReferenceOrder(byId([...out]), (r) => r);
}
