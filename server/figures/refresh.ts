import type { RowDataPacket } from 'mysql2/promise';
import { DEFINITION_VERSION } from '@/core/visit/definitions-version';
import { fromBin, toBin } from '../db/binary-id';
import { type Database, inTransaction, pool } from '../db/pool';
import { type Derived, deriveVisits, writeFigures } from './write-figures';

/** Visits rebuilt in one transaction: as many as a reader waits for. */
const PORTION = 200;
/** Portions that are asked for at once. */
const ROUND = 10;

/**
 * Visits of a household whose figures are out of date: changed since, or derived by an older version. What a newer version wrote is
 * left to it. Newest first, at most a round of portions and one.
 * @param failed those that are not tried again just now
 */
async function staleVisits(householdId: string, failed: ReadonlySet<string>): Promise<string[]> {
  const most = ROUND * PORTION + 1 + failed.size;
  const [rows] = await pool().execute<RowDataPacket[]>(
    `(SELECT id, sort_at FROM visit WHERE household_id = ? AND stale = TRUE AND definition_version <= ? ORDER BY sort_at DESC LIMIT ${most})
     UNION (SELECT id, sort_at FROM visit WHERE household_id = ? AND definition_version < ? ORDER BY sort_at DESC LIMIT ${most})
     ORDER BY sort_at DESC LIMIT ${most}`,
    [toBin(householdId), DEFINITION_VERSION, toBin(householdId), DEFINITION_VERSION],
  );
  return rows
    .map((r) => fromBin(r.id))
    .filter((id) => !failed.has(id))
    .slice(0, ROUND * PORTION + 1);
}

/** How many visits still wait for their figures. */
export async function figuresWaiting(householdId: string): Promise<number> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT (SELECT COUNT(*) FROM visit WHERE household_id = ? AND stale = TRUE AND definition_version = ?)
          + (SELECT COUNT(*) FROM visit WHERE household_id = ? AND definition_version < ?) AS n`,
    [toBin(householdId), DEFINITION_VERSION, toBin(householdId), DEFINITION_VERSION],
  );
  return Number(rows[0]?.n ?? 0);
}

/** True where no visit waits for its figures, not even for those of a newer version: they stay until something is written. */
export async function figuresSettled(householdId: string): Promise<boolean> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT EXISTS (SELECT 1 FROM visit WHERE household_id = ? AND stale = TRUE)
         OR EXISTS (SELECT 1 FROM visit WHERE household_id = ? AND definition_version < ?) AS waits`,
    [toBin(householdId), toBin(householdId), DEFINITION_VERSION],
  );
  return Number(rows[0]?.waits) === 0;
}

/** Who refreshes a household just now: `first`, when its newest are done, and `all`. */
const running = new Map<string, { first: Promise<void>; all: Promise<number> }>();

/**
 * Begins to rebuild what is out of date, unless that is under way: the newest first, in portions, until nothing is left.
 * What cannot be derived stays as it is and is told in the log; it hinders nothing and is tried again at the next time of asking.
 * @param onPortion told after each portion how many are done
 */
export function rebuild(householdId: string, onPortion: (done: number) => void = () => {}): { first: Promise<void>; all: Promise<number> } {
  const under = running.get(householdId);
  if (under) return under;
  let firstDone: () => void = () => {};
  const first = new Promise<void>((done) => {
    firstDone = done;
  });
  const work = async (): Promise<number> => {
    let total = 0;
    const failed = new Set<string>();
    for (;;) {
      const ids = await staleVisits(householdId, failed);
      const round = ids.slice(0, ROUND * PORTION);
      let ahead = deriveVisits(householdId, round.slice(0, PORTION));
      for (let from = 0; from < round.length || from === 0; from += PORTION) {
        const derived = await ahead;
        // The next portion is derived here while the database writes this one.
        ahead = deriveVisits(householdId, round.slice(from + PORTION, from + 2 * PORTION));
        ahead.catch(() => {});
        const done = new Set(await writeDerived(householdId, derived));
        for (const id of round.slice(from, from + PORTION)) if (!done.has(id)) failed.add(id);
        total += done.size;
        firstDone();
        onPortion(total);
      }
      if (ids.length <= round.length) return total;
    }
  };
  const all = work().finally(() => {
    running.delete(householdId);
    firstDone();
  });
  const begun = { first, all };
  running.set(householdId, begun);
  return begun;
}

/**
 * The database for reading the projection of visits or their figures. The newest of what is stale is brought up to date first;
 * where more waits, that is worked off in the background, and pages say so. There is no other way to them.
 */
export async function figuresOf(householdId: string): Promise<Database> {
  const { first, all } = rebuild(householdId);
  all.catch((error) => console.error('figures left stale', error));
  // A database that is away is told to the reader, who would find out anyway.
  await Promise.race([first, all]);
  return pool();
}

/**
 * Derives visits anew from their events and writes what lists and comparisons read, all in one transaction. Where that fails, each
 * alone, so that one that cannot be written hinders no other.
 * @returns ids of those that were done
 */
export const refreshVisits = async (householdId: string, visitIds: readonly string[]): Promise<string[]> =>
  writeDerived(householdId, await deriveVisits(householdId, visitIds));

async function writeDerived(householdId: string, derived: readonly Derived[]): Promise<string[]> {
  if (derived.length === 0) return [];
  try {
    return await inTransaction((c) => writeFigures(c, householdId, derived));
  } catch (error) {
    if (derived.length === 1) {
      console.error(`the figures of visit ${derived[0]?.visit.id} could not be written`, error);
      return [];
    }
  }
  const done: string[] = [];
  for (const one of derived) {
    try {
      done.push(...(await inTransaction((c) => writeFigures(c, householdId, [one]))));
    } catch (error) {
      console.error(`the figures of visit ${one.visit.id} could not be written`, error);
    }
  }
  return done;
}
