import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { headingsBefore } from '@/core/formats/sheet-columns';
import type { SheetAnswer } from '@/core/formats/sheet-import';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';

/** More sheets nobody has; the one that was said longest ago goes. */
const MOST = 50;

/** What a sheet is known by: its headings in their order, capitals and blanks apart; that of its refused rows by the same. */
const hashOf = (headings: readonly string[]): Buffer =>
  createHash('sha256')
    .update(JSON.stringify(headingsBefore(headings).map((h) => h.normalize('NFKC').trim().replace(/\s+/g, ' ').toLowerCase())))
    .digest();

/** What is said of how a sheet is written. What is said of its rows holds for these rows alone. */
const HABITS: ReadonlySet<string> = new Set([
  'columns',
  'dates',
  'decimal',
  'column_meaning',
  'column_twice',
  'encoding',
  'date_order',
  'decimal_mark',
  'energy_unit',
  'duration_form',
  'currency',
  'currency_symbol',
]);
/** What holds whatever a sheet's own cells prove. */
const CORRECTS: ReadonlySet<string> = new Set(['columns', 'dates', 'decimal']);
/** What was taken back again says nothing. */
const ofSheet = (answers: readonly SheetAnswer[]): SheetAnswer[] =>
  answers.filter((a) => a.lines === undefined && HABITS.has(a.code) && a.answer !== null && a.answer !== undefined);

/**
 * Of what was said before, what corrects how such a sheet is read, and what this file asks: where its own cells prove something they are believed.
 * @param asks what it asks with some answers given
 */
export async function answersAsked(
  said: readonly SheetAnswer[],
  asks: (given: readonly SheetAnswer[]) => Promise<readonly { code: string }[]>,
): Promise<SheetAnswer[]> {
  let given = said.filter((a) => CORRECTS.has(a.code));
  // An answer can lead to the next question.
  for (let rounds = 0; rounds < HABITS.size; rounds++) {
    const open = new Set((await asks(given)).map((q) => q.code));
    const more = said.filter((a) => open.has(a.code) && !given.includes(a));
    if (more.length === 0) break;
    given = [...given, ...more];
  }
  return given;
}

/** What was said of a sheet of these headings; nothing where it is not known. */
export async function habitOf(who: Who, headings: readonly string[]): Promise<SheetAnswer[]> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT answers FROM sheet_habit WHERE household_id = ? AND headings_hash = ?', [
    toBin(who.householdId),
    hashOf(headings),
  ]);
  const found = rows[0]?.answers;
  return found === undefined ? [] : ((typeof found === 'string' ? JSON.parse(found) : found) as SheetAnswer[]);
}

/** Remembers what was said of a sheet, in place of what was said before. Where nothing was said nothing is remembered any more. */
export async function keepHabit(who: Who, headings: readonly string[], answers: readonly SheetAnswer[]): Promise<void> {
  const said = ofSheet(answers);
  const key = [toBin(who.householdId), hashOf(headings)];
  if (said.length === 0) {
    await pool().execute('DELETE FROM sheet_habit WHERE household_id = ? AND headings_hash = ?', key);
    return;
  }
  await pool().execute(
    'INSERT INTO sheet_habit (household_id, headings_hash, answers, said_at) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE answers = VALUES(answers), said_at = VALUES(said_at)',
    [...key, JSON.stringify(said), new Date(now())],
  );
  await pool().execute(
    `DELETE FROM sheet_habit WHERE household_id = ? AND headings_hash NOT IN
       (SELECT headings_hash FROM (SELECT headings_hash FROM sheet_habit WHERE household_id = ? ORDER BY said_at DESC LIMIT ${MOST}) AS kept)`,
    [toBin(who.householdId), toBin(who.householdId)],
  );
}
