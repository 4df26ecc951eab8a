import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { FORMAT, FORMAT_VERSION, type Line, lineSum, readBackup } from './format';

const dir = mkdtempSync(path.join(tmpdir(), 'mile-format-'));
afterAll(() => rmSync(dir, { recursive: true }));
const sha = (lines: string[]) =>
  createHash('sha256')
    .update(lines.map((l) => `${l}\n`).join(''))
    .digest('hex');

const head = { format: FORMAT, version: FORMAT_VERSION, madeAt: '2026-11-26T08:00:00.000Z', migrations: ['0001.sql'], binlog: null };
const table = { name: 'network', columns: ['id', 'name'], bytes: ['id'], key: ['id'] };
const rows = [
  ['AQ==', 'Bluebarn'],
  ['Ag==', null],
];
/** The lines of a small backup with a right end. */
function whole(): string[] {
  const lines = [head, table, ...rows].map((l) => JSON.stringify(l));
  const end = { end: true, tables: { network: { rows: 2, sha256: sha(lines.slice(2)) } }, sha256: sha(lines) };
  return [...lines, JSON.stringify(end)];
}
/** The same end for other lines, so that only what is asked about is wrong. */
function ended(lines: string[], tables: object): string[] {
  return [...lines, JSON.stringify({ end: true, tables, sha256: sha(lines) })];
}
async function read(bytes: Buffer): Promise<Line[]> {
  const file = path.join(dir, 'b.gz');
  writeFileSync(file, bytes);
  const out: Line[] = [];
  for await (const line of readBackup(file)) out.push(line);
  return out;
}
const zipped = (lines: string[]) => gzipSync(lines.map((l) => `${l}\n`).join(''));

describe('a backup', () => {
  it('is read line by line: head, table, rows with their numbers, end', async () => {
    expect(await read(zipped(whole()))).toEqual([
      { is: 'head', head },
      { is: 'table', table },
      { is: 'row', table, row: rows[0], n: 2 },
      { is: 'row', table, row: rows[1], n: 3 },
      { is: 'end', end: expect.objectContaining({ end: true }) },
    ]);
  });
  it('sums a table by its lines: the same for the same rows', () => {
    const sum = lineSum();
    for (const r of rows) sum.add(JSON.stringify(r));
    expect(sum.sum()).toEqual({ rows: 2, sha256: sha(rows.map((r) => JSON.stringify(r))) });
  });
  const [h, t, a, b] = whole() as [string, string, string, string];
  const net = { network: { rows: 2, sha256: sha([a, b]) } };
  it.each<[string, Buffer, string]>([
    ['that is none', Buffer.from('no gzip at all'), 'cannot be read to the end'],
    ['cut short', zipped(whole()).subarray(0, 120), 'cannot be read to the end'],
    ['without its end', zipped([h, t, a, b]), 'its end is missing'],
    ['that is empty', gzipSync(''), 'its end is missing'],
    ['of something else', zipped(['{"format":"another"}']), 'this is no backup of this ledger'],
    ['of a newer version', zipped([JSON.stringify({ ...head, version: FORMAT_VERSION + 1 })]), 'written by a newer version'],
    ['with a line that is no JSON', zipped([h, t, '[oops']), 'line 3 is not JSON'],
    ['with a row before any table', zipped([h, a]), 'line 2 belongs to no table'],
    ['with a value missing', zipped([h, t, '["AQ=="]']), 'line 3 has not as many values as network has columns'],
    ['with a row changed', zipped([h, t, a.replace('Blue', 'Gold'), b, whole()[4] as string]), 'its lines are not those that were written'],
    ['with a row left out', zipped(ended([h, t, a], net)), 'table network is not what was written'],
    ['with a table left out', zipped(ended([h, t, a, b], { ...net, site: { rows: 1, sha256: 'x' } })), 'table site is not what was written'],
    ['with something behind it', zipped([...whole(), t]), 'something follows its end'],
  ])('%s is refused', async (_what, bytes, why) => {
    await expect(read(bytes)).rejects.toThrow(why);
  });
});
