import { LRUCache } from 'lru-cache';
import type { VisitRow } from '@/core/compare/visit-row';
import type { HouseholdRev } from '../outbox/household-rev';

/** How far a household's ledger had come. */
type Standing = Pick<HouseholdRev, 'epoch' | 'rev'>;
type KeptRows = Standing & { rows: readonly VisitRow[] };

/** Visits and attempts that are kept in memory, of all households: some 50 MB. */
const MOST_KEPT = 100_000;

// Pages and route handlers are bundled apart, and share one memory.
const shared = globalThis as unknown as { mileRows?: LRUCache<string, KeptRows> };
const kept = (): LRUCache<string, KeptRows> => {
  shared.mileRows ??= new LRUCache({ maxSize: MOST_KEPT, sizeCalculation: ({ rows }) => rows.reduce((n, r) => n + 1 + r.attempts.length, 1) });
  return shared.mileRows;
};
const keyOf = (householdId: string, question: string) => `${householdId} ${question}`;

/** The answer to a question of a household's visits, where it was asked before and nothing was written since. */
export function keptRows(householdId: string, question: string, { epoch, rev }: Standing): readonly VisitRow[] | null {
  const found = kept().get(keyOf(householdId, question));
  return found?.epoch === epoch && found.rev === rev ? found.rows : null;
}

/**
 * Keeps an answer until something is written, as long as there is room. From now on nobody changes it.
 * @param standing of the household before the answer was read: what is written in between is in it or not, and nobody asks for it again
 */
export function keepRows(householdId: string, question: string, standing: Standing, rows: readonly VisitRow[]): readonly VisitRow[] {
  for (const row of rows) {
    for (const attempt of row.attempts) Object.freeze(attempt);
    Object.freeze(row.attempts);
    Object.freeze(row);
  }
  Object.freeze(rows);
  kept().set(keyOf(householdId, question), { epoch: standing.epoch, rev: standing.rev, rows });
  return rows;
}

/** Forgets what is kept of a household: it was deleted. */
export function forgetRows(householdId: string): void {
  for (const key of kept().keys()) if (key.startsWith(keyOf(householdId, ''))) kept().delete(key);
}
