import { BlobReader, configure, type Entry, type FileEntry, Uint8ArrayReader, ZipReader } from '@zip.js/zip.js';

// Where the caller runs it, in a page or on the server, is its own affair.
configure({ useWebWorkers: false });

/** Bounds of a zip that is read: what nobody writes who means well. Choices. */
export const ZIP_MOST = {
  entries: 20_000,
  entryBytes: 25 * 1024 * 1024,
  totalBytes: 2 * 1024 ** 3,
  ratio: 200,
  ratioFrom: 1024 * 1024,
  nameBytes: 255,
} as const;

export type ZipCode = 'zip_broken' | 'zip_entries' | 'zip_encrypted' | 'zip_name' | 'zip_duplicate' | 'zip_method' | 'zip_size' | 'zip_ratio';
/** Why a zip is not read, and at which entry. */
export type ZipRefused = { code: ZipCode; entry: string | null };
export type ZipRead<T> = { ok: true; value: T } | ({ ok: false } & ZipRefused);
export type ZipEntry = {
  name: string;
  size: number;
  /** Unpacks it, never beyond the size that the directory says. */
  read(): Promise<ZipRead<Uint8Array>>;
};

const refused = (code: ZipCode, entry: string | null): { ok: false } & ZipRefused => ({ ok: false, code, entry });

// biome-ignore lint/suspicious/noControlCharactersInRegex: it is control characters that are looked for
const ODD_NAME = /^\/|^[a-z]:|\\|(?:^|\/)\.\.(?:\/|$)|[\u0000-\u001f\u007f]/i;

/** What is wrong with an entry by the directory alone, before anything of it is unpacked. */
function problemOf(e: Entry, names: ReadonlySet<string>): ZipCode | null {
  if (e.encrypted) return 'zip_encrypted';
  if (ODD_NAME.test(e.filename) || e.rawFilename.length > ZIP_MOST.nameBytes) return 'zip_name';
  if (names.has(folded(e.filename))) return 'zip_duplicate';
  if (e.compressionMethod !== 0 && e.compressionMethod !== 8) return 'zip_method';
  if (e.uncompressedSize > ZIP_MOST.entryBytes) return 'zip_size';
  if (e.uncompressedSize >= ZIP_MOST.ratioFrom && e.uncompressedSize > ZIP_MOST.ratio * e.compressedSize) return 'zip_ratio';
  return null;
}

/** Two names that a file system without capitals takes for one. */
const folded = (name: string): string => name.normalize('NFC').toLowerCase();

/**
 * Opens a zip (PKWARE APPNOTE, from memory). The whole directory is looked through first: nothing is unpacked of a zip that has an entry which is encrypted, leaves its
 * folder, stands twice, is packed in an unknown way, or would come out larger than it may. Never throws.
 * @param zip in memory, or a file that is read where it is wanted
 */
export async function openZip(zip: Uint8Array | Blob): Promise<ZipRead<ZipEntry[]>> {
  let entries: Entry[];
  const reader = new ZipReader<unknown>(zip instanceof Uint8Array ? new Uint8ArrayReader(zip) : new BlobReader(zip));
  try {
    entries = [];
    // Names are judged below, all by the same rule.
    for await (const entry of reader.getEntriesGenerator({ filenameValidation: 'tolerant' })) {
      // One that says it has millions of them is not listened to.
      if (entries.length >= ZIP_MOST.entries) return refused('zip_entries', null);
      entries.push(entry);
    }
  } catch {
    return refused('zip_broken', null);
  }
  const names = new Set<string>();
  let total = 0;
  for (const e of entries) {
    const code = problemOf(e, names);
    if (code) return refused(code, e.filename);
    names.add(folded(e.filename));
    total += e.uncompressedSize;
    if (total > ZIP_MOST.totalBytes) return refused('zip_size', e.filename);
  }
  const files = entries.filter((e): e is FileEntry => !e.directory);
  return { ok: true, value: files.map((e) => ({ name: e.filename, size: e.uncompressedSize, read: () => unpack(e) })) };
}

/** More or less came out than was said. */
class OtherSize extends Error {}

async function unpack(e: FileEntry): Promise<ZipRead<Uint8Array>> {
  const out = new Uint8Array(e.uncompressedSize);
  let at = 0;
  try {
    await e.getData(
      new WritableStream<Uint8Array>({
        write(part) {
          if (at + part.length > out.length) throw new OtherSize();
          out.set(part, at);
          at += part.length;
        },
      }),
      { checkCrc32: true },
    );
    if (at !== out.length) throw new OtherSize();
  } catch (error) {
    return refused(error instanceof OtherSize || /size/i.test((error as Error)?.message ?? '') ? 'zip_size' : 'zip_broken', e.filename);
  }
  return { ok: true, value: out };
}
