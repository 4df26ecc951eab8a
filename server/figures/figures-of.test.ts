import { readdirSync, readFileSync } from 'node:fs';

/** Files that write the projection, look at it as it lies, or ask nothing of it that can be out of date. */
const APART = new Set([
  'server/figures/refresh.ts',
  'server/figures/write-figures.ts',
  'server/figures/stale-by-record.ts',
  'server/outbox/take-batch.ts',
  'server/visits/join-visits.ts',
  'server/visits/follow-joins.ts',
  // Within the transaction that writes: what it asks cannot wait for figures.
  'server/visits/join-wishes.ts',
  'server/outbox/look-on-only.ts',
]);
const files = ['server', 'app'].flatMap((root) =>
  readdirSync(root, { recursive: true, encoding: 'utf8' })
    .map((f) => `${root}/${f}`)
    .filter((f) => /\.tsx?$/.test(f) && !f.includes('.test.') && !f.startsWith('server/commands/') && !f.startsWith('server/backup/')),
);

describe('figures are read when they are up to date, and in no other way', () => {
  const readers = files.filter((f) => !APART.has(f) && /\b(FROM|JOIN) (visit|visit_figures|attempt_figures|visit_tape)\b/.test(readFileSync(f, 'utf8')));
  it('by the queries there are', () => expect(readers.length).toBeGreaterThan(8));
  it.each(readers)('%s', (file) => {
    const text = readFileSync(file, 'utf8');
    // A file that only writes conditions leaves the asking to its callers.
    if (/\.(execute|query)\b/.test(text)) expect(text).toContain('figuresOf(');
    expect(text).not.toMatch(/pool\(\)\.(execute|query)[^;]*\b(FROM|JOIN) (visit|visit_figures|attempt_figures|visit_tape)\b/);
  });
});
