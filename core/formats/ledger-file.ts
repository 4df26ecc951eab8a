import * as z from '@/core/units/schema';
import { inReferenceOrder } from '../records/reference-order';
import { firstProblem, ownWords } from '../units/own-words';
import { LEDGER_FORMAT, LEDGER_VERSION } from './ledger-schema';
import { fold } from './match-sessions';
import { plainJson } from './plain-json';
import { ANY_DOUBLE, type JsonRefused, readJson } from './strict-json';
import { openZip, type ZipEntry, type ZipRefused } from './zip-in';

/** Before there were zips a household was one JSON file. It is read for good. */
const BEFORE_ZIPS = 'mile-ledger-household';
export const EVENTS_FORMAT = 'mile-ledger-events';
/** The one file that every such zip has. */
export const LEDGER_ENTRY = 'ledger.json';
export const photoEntry = (name: string): string => `photos/${name}.jpg`;

const person = z.looseObject({ personId: z.string(), name: z.string() });
/** Only what is needed to begin: every record and event is judged by itself where it comes in. */
const head = z.looseObject({
  household: z.looseObject({ id: z.string(), name: z.string(), currency: z.string(), zone: z.string() }),
  people: z.array(person).check(z.maxLength(1000, 'are more than one household has')),
  records: z.array(z.unknown()),
  events: z.array(z.unknown()),
  parts: z._default(z.array(z.looseObject({ name: z.string(), events: z.int() })), []),
  watches: z._default(z.array(z.unknown()), []),
  views: z._default(z.array(z.unknown()), []),
  closed: z._default(z.array(z.unknown()), []),
  photos: z._default(z.array(z.looseObject({ name: z.string().check(z.regex(/^[0-9a-f]{64}$/)), stored: z.string() })), []),
});
export type LedgerHead = z.infer<typeof head>;

/** Why a file is no ledger that can be read here. */
export type LedgerRefused =
  | (ZipRefused & { of: 'zip' })
  | (JsonRefused & { of: 'json'; entry: string | null })
  | { of: 'ledger'; code: 'not_a_ledger' | 'newer_version' | 'parts_apart' | 'part_missing' | 'part_differs' | 'field'; entry: string | null; reason?: string };
type Read<T> = { ok: true; value: T } | { ok: false; refused: LedgerRefused };

export type LedgerFile = {
  head: LedgerHead;
  /** The events of the file, part by part: only one part is in memory. */
  events(): AsyncGenerator<Read<unknown[]>>;
  /** The bytes of a picture, `null` where the zip has none of that name. */
  photo(name: string): Promise<Read<Uint8Array | null>>;
};

const no = (code: Extract<LedgerRefused, { of: 'ledger' }>['code'], entry: string | null, reason?: string) => ({
  ok: false as const,
  refused: { of: 'ledger' as const, code, entry, ...(reason === undefined ? {} : { reason }) },
});

function document(bytes: Uint8Array, entry: string | null): Read<Record<string, unknown>> {
  const read = readJson(bytes, ANY_DOUBLE);
  if (!read.ok) return { ok: false, refused: { of: 'json', code: read.code, where: read.where, entry } };
  const value = plainJson(read.value);
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return no('not_a_ledger', entry);
  return { ok: true, value: value as Record<string, unknown> };
}

/**
 * Opens a ledger that was taken along: the zip, or the single JSON file of earlier versions. Nothing of it is trusted beyond its form.
 * @param file in memory, or one that is read where it is wanted
 */
export async function openLedger(file: Uint8Array | Blob): Promise<Read<LedgerFile>> {
  const begin = file instanceof Uint8Array ? file.subarray(0, 64) : new Uint8Array(await file.slice(0, 64).arrayBuffer());
  if (/^(?:\u00ef\u00bb\u00bf)?\s*\{/.test(String.fromCharCode(...begin)))
    return opened(document(file instanceof Uint8Array ? file : new Uint8Array(await file.arrayBuffer()), null), new Map(), null);
  const zip = await openZip(file);
  if (!zip.ok) return { ok: false, refused: { of: 'zip', code: zip.code, entry: zip.entry } };
  const folder = folderOf(zip.value);
  if (folder === null) return no('not_a_ledger', null);
  const entries = new Map(zip.value.flatMap((e) => (e.name.startsWith(folder) ? [[e.name.slice(folder.length), e] as const] : [])));
  const ledger = entries.get(LEDGER_ENTRY) as ZipEntry;
  const bytes = await ledger.read();
  if (!bytes.ok) return { ok: false, refused: { of: 'zip', code: bytes.code, entry: bytes.entry } };
  return opened(document(bytes.value, LEDGER_ENTRY), entries, LEDGER_ENTRY);
}

/**
 * Where in a zip the ledger lies. Some browsers unpack what they download: the folder that is left, put into a zip again, lies in it as a folder, beside what the system keeps of
 * its own. @returns `''` at the top, else with its stroke; `null` where there is none, or more than one
 */
function folderOf(files: readonly ZipEntry[]): string | null {
  const names = files.map((e) => e.name);
  if (names.includes(LEDGER_ENTRY)) return '';
  const found = names.filter((name) => name.endsWith(`/${LEDGER_ENTRY}`));
  return found.length === 1 && found[0] !== undefined ? found[0].slice(0, -LEDGER_ENTRY.length) : null;
}

function opened(read: Read<Record<string, unknown>>, entries: ReadonlyMap<string, ZipEntry>, entry: string | null): Read<LedgerFile> {
  if (!read.ok) return read;
  const { format, version } = read.value;
  if (format !== LEDGER_FORMAT && format !== BEFORE_ZIPS) return no('not_a_ledger', entry);
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) return no('field', entry, 'version: must be a whole number');
  if (version > LEDGER_VERSION) return no('newer_version', entry);
  const parsed = head.safeParse(read.value, { error: ownWords });
  if (!parsed.success) {
    const { path, reason } = firstProblem(parsed.error, '');
    return no('field', entry, `${path}: ${reason}`);
  }
  const missing = parsed.data.parts.find((p) => !entries.has(p.name));
  // The one file alone, out of its zip, is not whole either.
  if (missing) return no(entry === null ? 'parts_apart' : 'part_missing', missing.name);
  return { ok: true, value: { head: parsed.data, events: () => eventsOf(parsed.data, entries), photo: (name) => photoOf(entries.get(photoEntry(name))) } };
}

async function* eventsOf(head: LedgerHead, entries: ReadonlyMap<string, ZipEntry>): AsyncGenerator<Read<unknown[]>> {
  if (head.events.length > 0) yield { ok: true, value: head.events };
  for (const part of head.parts) {
    const bytes = await (entries.get(part.name) as ZipEntry).read();
    if (!bytes.ok) return void (yield { ok: false, refused: { of: 'zip', code: bytes.code, entry: bytes.entry } });
    const read = document(bytes.value, part.name);
    if (!read.ok) return void (yield read);
    const { format, version, events } = read.value;
    if (format !== EVENTS_FORMAT || version !== LEDGER_VERSION || !Array.isArray(events) || events.length !== part.events)
      return void (yield no('part_differs', part.name));
    yield { ok: true, value: events };
  }
}

async function photoOf(entry: ZipEntry | undefined): Promise<Read<Uint8Array | null>> {
  if (!entry) return { ok: true, value: null };
  const bytes = await entry.read();
  return bytes.ok ? bytes : { ok: false, refused: { of: 'zip', code: bytes.code, entry: bytes.entry } };
}

/** Whether nobody's visits are in it: places and prices, which may be here under other ids. */
export const ofPlacesAlone = ({ head }: LedgerFile): boolean =>
  head.events.length + head.parts.length + head.watches.length + head.views.length + head.closed.length === 0;

/** One request's worth of a ledger on its way in. */
export type LedgerBatch = { records: unknown[]; events: unknown[]; watches: unknown[]; views: unknown[]; closed: unknown[] };
const MOST = { items: 400, characters: 250_000 };
/** Lists of one kind in pieces that fit into a request; what is too large by itself travels alone and is refused where it comes in. */
function* pieces<T>(all: readonly T[]): Generator<T[]> {
  let piece: T[] = [];
  let size = 0;
  for (const one of all) {
    const own = JSON.stringify(one)?.length ?? 0;
    if (piece.length > 0 && (piece.length >= MOST.items || size + own > MOST.characters)) {
      yield piece;
      piece = [];
      size = 0;
    }
    piece.push(one);
    size += own;
  }
  if (piece.length > 0) yield piece;
}

const isMark = (raw: unknown): boolean => typeof raw === 'object' && raw !== null && (raw as { kind?: unknown }).kind === 'mark';
const asRecord = (raw: unknown): { id: string; fields: object } => {
  const r = (typeof raw === 'object' && raw !== null ? raw : {}) as { id?: unknown; fields?: unknown };
  return { id: String(r.id ?? ''), fields: typeof r.fields === 'object' && r.fields !== null ? r.fields : {} };
};

/** A ledger in the pieces in which it comes in: what another refers to before it, what names records after them. */
export async function* ledgerBatches(file: LedgerFile): AsyncGenerator<Read<LedgerBatch>> {
  const none: LedgerBatch = { records: [], events: [], watches: [], views: [], closed: [] };
  for (const records of pieces(inReferenceOrder(file.head.records, asRecord))) yield { ok: true, value: { ...none, records } };
  for await (const part of file.events()) {
    if (!part.ok) return void (yield part);
    // What makes a visit private before the visit itself: it is never seen by others, however long the rest takes.
    const [marks, others] = [true, false].map((is) => part.value.filter((e) => isMark(e) === is)) as [unknown[], unknown[]];
    for (const events of pieces([...marks, ...others])) yield { ok: true, value: { ...none, events } };
  }
  for (const watches of pieces(file.head.watches)) yield { ok: true, value: { ...none, watches } };
  for (const views of pieces(file.head.views)) yield { ok: true, value: { ...none, views } };
  for (const closed of pieces(file.head.closed)) yield { ok: true, value: { ...none, closed } };
}

/**
 * Who somebody of the file is here: the same account, else the only one of the same name; where neither is told, it is asked.
 * @returns by the file's id the id here, or `null`
 */
export function proposedPeople(
  file: readonly { personId: string; name: string }[],
  here: readonly { personId: string; name: string }[],
): Map<string, string | null> {
  return new Map(
    file.map((p) => {
      if (here.some((h) => h.personId === p.personId)) return [p.personId, p.personId];
      const named = here.filter((h) => fold(h.name) === fold(p.name));
      return [p.personId, named.length === 1 && named[0] ? named[0].personId : here.length === 1 && file.length === 1 && here[0] ? here[0].personId : null];
    }),
  );
}
