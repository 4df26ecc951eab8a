// Holds the ledger of DATABASE_URL against itself and prints what differs. Changes nothing. Run by bin/check.
import type { RowDataPacket } from 'mysql2/promise';
import { checkHousehold, checkReferences } from '../backup/check-ledger';
import { fromBin } from '../db/binary-id';
import { limits, pool } from '../db/pool';

limits.query_ms = 600_000;
const [households] = await pool().query<RowDataPacket[]>('SELECT id FROM household ORDER BY id');
const differences: string[] = await checkReferences();
const counts: Record<string, number> = { households: households.length };
for (const h of households) {
  const id = fromBin(h.id);
  const checked = await checkHousehold(id);
  for (const [what, n] of Object.entries(checked.counts)) counts[what] = (counts[what] ?? 0) + n;
  differences.push(...checked.differences.map((d) => `household ${id}: ${d}`));
}
await pool().end();
console.log(
  `Looked at ${Object.entries(counts)
    .map(([what, n]) => `${n} ${what}`)
    .join(', ')}.`,
);
for (const d of differences) console.log(`DIFFERS  ${d}`);
console.log(differences.length === 0 ? 'Nothing differs.' : `${differences.length} differences. Nothing was changed.`);
process.exit(differences.length === 0 ? 0 : 1);
