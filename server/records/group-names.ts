import type { RowDataPacket } from 'mysql2/promise';
import { GROUPINGS, type Group, type Grouping, type GroupingFile } from '@/core/figures/groupings';
import type { RecordType } from '@/core/records/record-types';
import { grouped } from '@/core/units/grouped';
import { membersOf } from '../accounts/members';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';

const MARKS = (list: readonly unknown[]) => list.map(() => '?').join(', ');

/**
 * What the groups of a comparison are called: records by their names, a stall with its site's before it.
 * @param keys of each grouping
 */
export async function groupNames(householdId: string, keys: ReadonlyMap<Grouping, readonly string[]>): Promise<(g: Group) => string> {
  const names = new Map<string, string>();
  for (const [by, of] of keys) {
    const { named, one }: GroupingFile = GROUPINGS[by];
    if (typeof named === 'function') for (const key of of) names.set(`${by} ${key}`, named(key));
    else {
      const found = named === 'person' ? await peopleNames(householdId) : await recordNames(householdId, named, of);
      for (const key of of) names.set(`${by} ${key}`, found.get(key) ?? `a ${one} not known here`);
    }
  }
  return ({ by, key }) => names.get(`${by} ${key}`) ?? key;
}

/** The same for some groups, of whatever they are grouped by. */
export function namesOfGroups(householdId: string, groups: readonly Group[]): Promise<(g: Group) => string> {
  const keys = grouped(groups, (g) => g.by);
  return groupNames(householdId, new Map([...keys].map(([by, of]) => [by, of.map((g) => g.key)])));
}

const peopleNames = async (householdId: string): Promise<Map<string, string>> => new Map((await membersOf(householdId)).map((m) => [m.personId, m.name]));

/** At most so many ids in one statement. */
const PORTION = 1000;
async function recordNames(householdId: string, type: RecordType, ids: readonly string[]): Promise<Map<string, string>> {
  const out = new Map<string, string>();
  for (let from = 0; from < ids.length; from += PORTION) {
    const some = ids.slice(from, from + PORTION);
    const sql =
      type === 'stall'
        ? `SELECT s.id, CONCAT(p.name, ' ', s.name) AS name FROM stall s JOIN site p ON p.household_id = s.household_id AND p.id = s.site_id WHERE s.household_id = ? AND s.id IN (${MARKS(some)})`
        : `SELECT id, name FROM ${type} WHERE household_id = ? AND id IN (${MARKS(some)})`;
    const [rows] = await pool().execute<RowDataPacket[]>(sql, [toBin(householdId), ...some.map(toBin)]);
    for (const r of rows) out.set(fromBin(r.id), r.name as string);
  }
  return out;
}
