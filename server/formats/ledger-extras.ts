import * as z from 'zod';
import { viewAddress, viewForm } from '@/core/compare/saved-view';
import { watchForm } from '@/core/compare/watch';
import { FIRST_INSTANT, LAST_INSTANT } from '@/core/units/instant';
import { firstProblem, ownWords } from '@/core/units/own-words';
import { toBin } from '../db/binary-id';

/** What of a ledger is neither event nor record, as a row that is written once: of the same id, or a comparison of the same name, the one that is here stays. */
export type ExtraRow = {
  id: string;
  kind: 'watch' | 'view';
  insert: string;
  values: unknown[];
  name?: string /** It counts towards as many as there may be. */;
  counts: boolean;
};
type Read = ExtraRow | { path: string; reason: string };

const instant = z.int().min(FIRST_INSTANT).max(LAST_INSTANT);
const times = z.looseObject({ since: instant, endedAt: instant.nullish() });
const saved = z.looseObject({ savedAt: instant });

/** A pair on watch as it stood, since when and until when. @param personId who put it, here */
export function watchRow(raw: unknown, personId: string): Read {
  const form = watchForm.safeParse(raw, { error: ownWords });
  if (!form.success) return firstProblem(form.error, '');
  const at = times.safeParse(raw, { error: ownWords });
  if (!at.success) return firstProblem(at.error, '');
  const { id, by, a, b, figure } = form.data;
  return {
    id,
    kind: 'watch',
    counts: at.data.endedAt == null,
    insert: 'INSERT IGNORE INTO watch (household_id, id, by_what, key_a, key_b, figure, since, ended_at, put_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    values: [by, a, b, figure, new Date(at.data.since), at.data.endedAt == null ? null : new Date(at.data.endedAt), toBin(personId)],
  };
}

/** A saved comparison. @param personId who saved it, here */
export function viewRow(raw: unknown, personId: string): Read {
  const form = viewForm.safeParse(raw, { error: ownWords });
  if (!form.success) return firstProblem(form.error, '');
  const at = saved.safeParse(raw, { error: ownWords });
  if (!at.success) return firstProblem(at.error, '');
  const { id, name, address } = form.data;
  return {
    id,
    kind: 'view',
    counts: true,
    name,
    insert: 'INSERT IGNORE INTO saved_view (household_id, id, name, address, saved_by, saved_at) VALUES (?, ?, ?, ?, ?, ?)',
    values: [name, viewAddress(address), toBin(personId), new Date(at.data.savedAt)],
  };
}
