import { createHash, type Hash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { createInterface } from 'node:readline';
import { createGunzip } from 'node:zlib';
import type { Row, Table } from './tables';

/**
 * A backup is gzip (RFC 1952) of lines of JSON (RFC 8259), so that any program can read it:
 * a head, then for each table a line that names it and a line a row, then an end with the count of rows and the SHA-256 of
 * every line before it, line feeds included. docs/backup.md shows each line.
 */
export const FORMAT = 'mile-ledger-backup';
export const FORMAT_VERSION = 1;

export type Head = {
  format: typeof FORMAT;
  version: number;
  madeAt: string;
  /** Names of the migrations that had been applied, in order. */
  migrations: string[];
  /** Where the binary log stood at this very state, where one is kept. */
  binlog: { file: string; position: number } | null;
};
/** Rows of each table, and the SHA-256 of its row lines: the same for the same content, wherever it is. */
export type Sums = Record<string, { rows: number; sha256: string }>;
export type End = { end: true; tables: Sums; sha256: string };
export type Line = { is: 'head'; head: Head } | { is: 'table'; table: Table } | { is: 'row'; table: Table; row: Row; n: number } | { is: 'end'; end: End };

/** A backup that cannot be trusted, with what is wrong with it. */
export class DamagedBackup extends Error {}

const plain = (e: unknown): string => (e instanceof Error ? e.message : String(e));

/** Sums the lines of a table as they go by. */
export const lineSum = (): { add: (line: string) => void; sum: () => { rows: number; sha256: string } } => {
  const hash: Hash = createHash('sha256');
  let rows = 0;
  return {
    add: (line) => {
      hash.update(line).update('\n');
      rows += 1;
    },
    sum: () => ({ rows, sha256: hash.copy().digest('hex') }),
  };
};

/**
 * Reads a backup line by line, checking it against its own end.
 * @throws DamagedBackup for anything but a whole and unchanged one, at the latest at its end
 */
export async function* readBackup(file: string): AsyncGenerator<Line> {
  const source = createReadStream(file);
  const unzipped = source.pipe(createGunzip());
  source.on('error', (e) => unzipped.destroy(e));
  // A failure of the stream is told by the loop below, which reads it; without this it would also be told to nobody.
  unzipped.on('error', () => {});
  const whole = createHash('sha256');
  let table: Table | null = null;
  let sum = lineSum();
  const sums: Sums = {};
  let n = 0;
  let end: End | null = null;
  const closeTable = () => {
    if (table) sums[table.name] = sum.sum();
  };
  try {
    for await (const line of lines(unzipped)) {
      if (end) throw new DamagedBackup('something follows its end');
      let value: unknown;
      try {
        value = JSON.parse(line);
      } catch {
        throw new DamagedBackup(`line ${n + 1} is not JSON`);
      }
      if (n === 0) {
        const head = value as Head;
        if (head?.format !== FORMAT) throw new DamagedBackup('this is no backup of this ledger');
        if (head.version > FORMAT_VERSION) throw new DamagedBackup(`it was written by a newer version (${head.version})`);
        yield { is: 'head', head };
      } else if (Array.isArray(value)) {
        if (!table) throw new DamagedBackup(`line ${n + 1} belongs to no table`);
        if (value.length !== table.columns.length) throw new DamagedBackup(`line ${n + 1} has not as many values as ${table.name} has columns`);
        sum.add(line);
        yield { is: 'row', table, row: value as Row, n };
      } else if ((value as { end?: unknown })?.end === true) {
        closeTable();
        end = value as End;
        if (end.sha256 !== whole.digest('hex')) throw new DamagedBackup('its lines are not those that were written');
        for (const [name, s] of Object.entries(end.tables))
          if (sums[name]?.rows !== s.rows || sums[name]?.sha256 !== s.sha256) throw new DamagedBackup(`table ${name} is not what was written`);
        yield { is: 'end', end };
      } else {
        closeTable();
        table = value as Table;
        sum = lineSum();
        yield { is: 'table', table };
      }
      if (!end) whole.update(line).update('\n');
      n += 1;
    }
  } catch (e) {
    if (e instanceof DamagedBackup) throw e;
    throw new DamagedBackup(`it cannot be read to the end: ${plain(e)}`);
  }
  if (!end) throw new DamagedBackup('its end is missing');
}

async function* lines(input: NodeJS.ReadableStream): AsyncGenerator<string> {
  const reader = createInterface({ input, crlfDelay: Number.POSITIVE_INFINITY });
  let failed: unknown = null;
  input.on('error', (e) => {
    failed = e;
    reader.close();
  });
  for await (const line of reader) yield line;
  if (failed) throw failed;
}
