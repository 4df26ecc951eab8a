import type { RowDataPacket } from 'mysql2/promise';
import type { MileRecord } from '@/core/records/record-schema';
import { type TrialResult, trialResult } from '@/core/trials/trial-result';
import { type RoundRun, stepsDone, trialRounds } from '@/core/trials/trial-rounds';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { deriveVisits } from '../figures/write-figures';
import { readRecord, recordsOf } from '../records/record-tables';
import { seen, seenBy } from '../visits/seen-by';

/** A trial with its rounds. */
export type TrialFound = { trial: MileRecord<'trial'>; rounds: RoundRun[]; result: TrialResult; zone: string };
/** Visits of one trial that are looked at: more than its rounds and all of them again. */
const MOST_VISITS = 600;

/** Derived visits of a household's trials, by trial, as one of its people may see them. */
async function visitsByTrial({ householdId, personId }: Who, trialId?: string): Promise<Map<string, string[]>> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT f.trial_id, v.id FROM visit_figures f JOIN visit v ON v.household_id = f.household_id AND v.id = f.visit_id
      WHERE f.household_id = ? AND ${trialId ? 'f.trial_id = ?' : 'f.trial_id IS NOT NULL'} AND v.withdrawn = FALSE AND ${seen()} ORDER BY v.sort_at LIMIT ${MOST_VISITS}`,
    [toBin(householdId), ...(trialId ? [toBin(trialId)] : []), seenBy(personId)],
  );
  const out = new Map<string, string[]>();
  for (const r of rows) out.set(fromBin(r.trial_id), [...(out.get(fromBin(r.trial_id)) ?? []), fromBin(r.id)]);
  return out;
}

/** A trial with its rounds; `null` for an id that is unknown in this household. */
export async function trialFound(who: Who, trialId: string): Promise<TrialFound | null> {
  const trial = await readRecord(who.householdId, 'trial', trialId);
  if (!trial) return null;
  const ids = (await visitsByTrial(who, trialId)).get(trialId) ?? [];
  const visits = (await deriveVisits(who.householdId, ids)).map((d) => d.visit);
  const rounds = trialRounds(visits, trialId, trial.fields);
  return { trial, rounds, result: trialResult(trial.fields, rounds), zone: visits[0]?.zone ?? 'UTC' };
}

/** The steps of each open trial that are done, by its id: a phone knows what comes next, whichever ran the others. */
export async function trialSteps(who: Who): Promise<Record<string, string[]>> {
  const open = (await recordsOf(who.householdId, 'trial')).filter((t) => !t.archived && t.fields.endedOn === null);
  if (open.length === 0) return {};
  const ids = await visitsByTrial(who);
  const out: Record<string, string[]> = {};
  for (const t of open) {
    const visits = (await deriveVisits(who.householdId, ids.get(t.id) ?? [])).map((d) => d.visit);
    out[t.id] = [...stepsDone(trialRounds(visits, t.id, t.fields))];
  }
  return out;
}
