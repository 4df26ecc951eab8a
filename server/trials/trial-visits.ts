import type { RowDataPacket } from 'mysql2/promise';
import type { MileRecord } from '@/core/records/record-schema';
import { type TrialResult, trialResult } from '@/core/trials/trial-result';
import { type RoundRun, stepsDone, trialRounds } from '@/core/trials/trial-rounds';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { readRecord, recordsOf } from '../records/record-tables';
import { visitsById } from '../visits/derived-visits';
import { seen, seenBy } from '../visits/seen-by';

/** A trial with its rounds. */
export type TrialFound = { trial: MileRecord<'trial'>; rounds: RoundRun[]; result: TrialResult; zone: string };
/** Visits of one trial that are looked at: more than its rounds and all of them again. */
const MOST_VISITS = 600;

/** Ids of a trial's visits, the first first, as one of its people may see them. */
async function visitsOf({ householdId, personId }: Who, trialId: string): Promise<string[]> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT v.id FROM visit_figures f JOIN visit v ON v.household_id = f.household_id AND v.id = f.visit_id
      WHERE f.household_id = ? AND f.trial_id = ? AND v.withdrawn = FALSE AND ${seen()} ORDER BY v.sort_at LIMIT ${MOST_VISITS}`,
    [toBin(householdId), toBin(trialId), seenBy(personId)],
  );
  return rows.map((r) => fromBin(r.id));
}

/** A trial with its rounds; `null` for an id that is unknown in this household. */
export async function trialFound(who: Who, trialId: string): Promise<TrialFound | null> {
  const trial = await readRecord(who.householdId, 'trial', trialId);
  if (!trial) return null;
  const visits = [...(await visitsById(who.householdId, await visitsOf(who, trialId))).values()];
  const rounds = trialRounds(visits, trialId, trial.fields);
  return { trial, rounds, result: trialResult(trial.fields, rounds), zone: visits[0]?.zone ?? 'UTC' };
}

/** The steps of each open trial that are done, by its id: a phone knows what comes next, whichever ran the others. */
export async function trialSteps(who: Who): Promise<Record<string, string[]>> {
  const open = (await recordsOf(who.householdId, 'trial')).filter((t) => !t.archived && t.fields.endedOn === null);
  const out: Record<string, string[]> = {};
  for (const t of open) {
    const visits = [...(await visitsById(who.householdId, await visitsOf(who, t.id))).values()];
    out[t.id] = [...stepsDone(trialRounds(visits, t.id, t.fields))];
  }
  return out;
}
