import type { RowDataPacket } from 'mysql2/promise';
import { FIND_SCORES, findWords } from '@/core/records/find-text';
import { type Found, findables } from '@/core/records/findables';
import { printDate } from '@/core/units/zoned';
import { codeTyped } from '@/core/visit/visit-code';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from '../visits/seen-by';

/** Answers shown at once. */
const MOST = 12;
/** Words of what was typed that are looked for: more say no more. */
const MOST_WORDS = 8;

/**
 * Stalls and visits that are scored: the likeliest of those that answer at all. They are read from the indexes that hold what is
 * looked through, which are named: left to itself the database fetches each row beside them.
 */
const MOST_SCORED = 500;

type Sql = { sql: string; values: (string | Buffer)[] };
const wordsOf = (typed: string) => typed.split(' ').slice(0, MOST_WORDS);
const like = (w: string) => w.replace(/[\\%_]/g, '\\$&');
const joined = (parts: readonly Sql[], by: string): Sql => ({ sql: parts.map((p) => p.sql).join(by), values: parts.flatMap((p) => p.values) });

/** The rules of core/records/find-text.ts asked of the database, over a text of plain words. @param text an SQL expression */
function scoreOf(typed: string, text: string): Sql {
  const each = wordsOf(typed).map((w) => ({
    sql: `CASE WHEN CONCAT(' ', ${text}, ' ') LIKE ? THEN ${FIND_SCORES.word} WHEN CONCAT(' ', ${text}) LIKE ? THEN ${FIND_SCORES.beginsWord} ELSE ${FIND_SCORES.within} END`,
    values: [`% ${like(w)} %`, `% ${like(w)}%`],
  }));
  const words = joined(each, ' + ');
  return {
    sql: `IF(${text} = ?, ${FIND_SCORES.same}, IF(${text} LIKE ?, ${FIND_SCORES.begins}, 0) + ${words.sql})`,
    values: [typed, `${like(typed)}%`, ...words.values],
  };
}

/**
 * True for rows in which every word typed lies in a text of their own or in their site's. The site's words are looked through once a
 * word, not once a row: a household has more stalls and visits than sites.
 * @param own SQL expressions @param always a word that is part of every row's text
 */
const everyWord = (typed: string, own: readonly string[], always: string, household: Buffer): Sql =>
  joined(
    wordsOf(typed).map((w): Sql => {
      if (always.includes(w)) return { sql: 'TRUE', values: [] };
      const ownMatch = own.map((column) => `INSTR(${column}, ?)`).join(' OR ');
      // By the household's id itself: asked of each row it would be looked up for each.
      const ofSite = 'IN (SELECT x.id FROM site x WHERE x.household_id = ? AND INSTR(x.find_words, ?))';
      return { sql: `(${ownMatch} OR r.site_id ${ofSite})`, values: [...own.map(() => w), household, w] };
    }),
    ' AND ',
  );

/** The best answers of a household to what was typed: places, garage and visits by place, date, code and what went wrong. */
export async function findEverything(who: Who, typed: string): Promise<Found[]> {
  const want = findWords(typed).slice(0, 200);
  if (want === '') return [];
  const [records, visits] = await Promise.all([recordsFound(who.householdId, want), visitsFound(who, want)]);
  return [...records, ...visits]
    .sort((a, b) => b.score - a.score)
    .slice(0, MOST)
    .map((x) => x.found);
}

type Scored = { score: number; found: Found };
/** Sites before their stalls, these before what is in the garage. */
const RANK = ['site', 'stall', 'network', 'provider', 'car', 'adapter', 'means'] as const;

/** What stands in the garage, with the column of its name. */
const GARAGE = { network: 'name', provider: 'name', car: 'name', adapter: 'name', means: 'label' } as const;

async function recordsFound(householdId: string, want: string): Promise<Scored[]> {
  const hh = toBin(householdId);
  const inText = (text: string): Sql =>
    joined(
      wordsOf(want).map((w) => ({ sql: `INSTR(${text}, ?)`, values: [w] })),
      ' AND ',
    );
  const run = async ({ sql, values }: Sql) => (await pool().execute<RowDataPacket[]>(sql, values))[0];
  const siteText = "CONCAT(r.find_words, ' ', COALESCE(n.find_words, ''))";
  const [siteScore, siteWhere] = [scoreOf(want, siteText), inText(siteText)];
  const ofSites: Sql = {
    sql: `SELECT r.id, r.name, r.network_id, n.name AS network_name, ${siteScore.sql} AS score
            FROM site r LEFT JOIN network n ON n.household_id = r.household_id AND n.id = r.network_id
           WHERE r.household_id = ? AND r.archived_at IS NULL AND ${siteWhere.sql} ORDER BY score DESC, r.id LIMIT ${MOST}`,
    values: [...siteScore.values, hh, ...siteWhere.values],
  };
  const stallScore = scoreOf(want, "CONCAT(r.find_words, ' ', s.find_words, ' stall ', COALESCE(r.other_words, ''))");
  const stallWhere = everyWord(want, ['r.find_words', 'r.other_words'], 'stall', hh);
  // Those whose own name begins with a word typed are the likeliest.
  const rough = joined(
    wordsOf(want).map((w) => ({ sql: "(CONCAT(' ', r.find_words) LIKE ?)", values: [`% ${like(w)}%`] })),
    ' + ',
  );
  const ofStalls: Sql = {
    sql: `SELECT r.id, t.name, t.other_name, r.site_id, s.name AS site_name, ${stallScore.sql} AS score
            FROM (SELECT r.id, r.site_id, r.find_words, r.other_words FROM stall r FORCE INDEX (stall_found)
                   WHERE r.household_id = ? AND r.archived_at IS NULL AND ${stallWhere.sql} ORDER BY ${rough.sql} DESC LIMIT ${MOST_SCORED}) r
            JOIN site s ON s.household_id = ? AND s.id = r.site_id JOIN stall t ON t.household_id = s.household_id AND t.id = r.id
           WHERE s.archived_at IS NULL ORDER BY score DESC, r.id LIMIT ${MOST}`,
    values: [...stallScore.values, hh, ...stallWhere.values, ...rough.values, hh],
  };
  const [ownScore, ownWhere] = [scoreOf(want, 'r.find_words'), inText('r.find_words')];
  const ofGarage = joined(
    Object.entries(GARAGE).map(([type, name]) => ({
      sql: `(SELECT '${type}' AS type, r.id, r.${name} AS name, ${ownScore.sql} AS score FROM ${type} r
              WHERE r.household_id = ? AND r.archived_at IS NULL AND ${ownWhere.sql} ORDER BY score DESC, r.id LIMIT ${MOST})`,
      values: [...ownScore.values, hh, ...ownWhere.values],
    })),
    ' UNION ALL ',
  );
  const [sites, stalls, garage] = await Promise.all([run(ofSites), run(ofStalls), run(ofGarage)]);
  const id = (r: RowDataPacket, column: string) => fromBin(r[column]);
  const named = (type: keyof typeof GARAGE) => garage.filter((r) => r.type === type).map((r) => ({ id: id(r, 'id'), name: r.name as string }));
  const scores = new Map([...sites, ...stalls, ...garage].map((r) => [id(r, 'id'), Number(r.score)]));
  const networks = new Map([
    ...sites.map((s) => [id(s, 'network_id'), (s.network_name ?? '') as string] as const),
    ...named('network').map((n) => [n.id, n.name] as const),
  ]);
  const standing = new Map(stalls.map((s) => [id(s, 'site_id'), s.site_name as string]));
  return findables({
    network: [...networks].map(([i, name]) => ({ id: i, name })),
    provider: named('provider'),
    car: named('car'),
    adapter: named('adapter'),
    means: named('means'),
    site: [
      ...sites.map((s) => ({ id: id(s, 'id'), name: s.name as string, networkId: id(s, 'network_id') })),
      // Sites of stalls that were found: known for their name alone.
      ...[...standing].filter(([i]) => !scores.has(i)).map(([i, name]) => ({ id: i, name, networkId: '' })),
    ],
    stall: stalls.map((s) => ({ id: id(s, 'id'), name: s.name as string, otherName: s.other_name as string | null, siteId: id(s, 'site_id') })),
  })
    .flatMap((f) => (scores.has(f.id) ? [{ found: f, score: (scores.get(f.id) ?? 0) + (f.weight ?? 0) }] : []))
    .sort((a, b) => b.score - a.score || RANK.indexOf(a.found.kind as never) - RANK.indexOf(b.found.kind as never));
}

async function visitsFound({ householdId, personId }: Who, want: string): Promise<Scored[]> {
  const byWords = scoreOf(want, "CONCAT(COALESCE(s.find_words, 'somewhere new'), ' ', r.find_words, ' visit')");
  // The code is the end of the id, and asked of it alone: among the words, "12" would find every visit with a 12 in its code.
  const code = codeTyped(want);
  const isCode: Sql = code === null ? { sql: 'FALSE', values: [] } : { sql: 'HEX(r.id) LIKE ?', values: [`%${code.padEnd(8, '_')}`] };
  const where = joined([everyWord(want, ['r.find_words'], 'visit', toBin(householdId)), isCode], ') OR (');
  const score: Sql = { sql: `IF(${isCode.sql}, ${FIND_SCORES.same}, ${byWords.sql})`, values: [...isCode.values, ...byWords.values] };
  const hh = toBin(householdId);
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, v.site_id, v.sort_at, v.zone, b.site_name, n.name AS network_name, b.score
       FROM (SELECT r.id, r.sort_at, s.name AS site_name, ${score.sql} AS score
               FROM (SELECT r.id, r.sort_at, r.site_id, r.find_words FROM visit r FORCE INDEX (visit_found)
                      WHERE r.household_id = ? AND r.withdrawn = FALSE AND ((${where.sql})) ORDER BY r.sort_at DESC LIMIT ${MOST_SCORED}) r
               LEFT JOIN site s ON s.household_id = ? AND s.id = r.site_id ORDER BY score DESC, r.sort_at DESC LIMIT ${MOST}) b
       JOIN visit v ON v.household_id = ? AND v.id = b.id AND ${seen()} LEFT JOIN network n ON n.household_id = v.household_id AND n.id = v.network_id
      ORDER BY b.score DESC, b.sort_at DESC`,
    [...score.values, hh, ...where.values, hh, hh, seenBy(personId)],
  );
  return rows.map((r): Scored => {
    const at = (r.sort_at as Date).getTime();
    const label = `${r.site_name ?? (r.site_id === null ? 'Somewhere new' : 'Unknown site')}, ${printDate(at, r.zone)}`;
    const found: Found = {
      kind: 'visit',
      id: fromBin(r.id),
      label,
      line: `Visit, ${r.network_name ?? 'unknown network'}`,
      href: `/ledger/${fromBin(r.id)}`,
      text: label,
      weight: VISIT_WEIGHT,
    };
    return { found, score: Number(r.score) + VISIT_WEIGHT };
  });
}
/** Visits come after the places they were at. */
const VISIT_WEIGHT = -4;
