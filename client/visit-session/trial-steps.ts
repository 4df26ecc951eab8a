import type { TrialSteps } from '@/core/protocol/changes';
import type { Payload } from '@/core/visit/payloads';

type Told = { id?: string; visitId?: string; kind: string; payload: unknown };

/** Steps done by the server's word, and those told here that it may not have heard of yet; what was taken back was not run. */
export function withTold(steps: TrialSteps, told: readonly Told[]): TrialSteps {
  const back = new Set(told.flatMap((e) => (e.kind === 'withdrawal' ? [(e.payload as Payload<'withdrawal'>).target] : [])));
  const out: Record<string, readonly string[]> = { ...steps };
  for (const { id, visitId, kind, payload } of told) {
    if (kind !== 'trial_round' || back.has(id ?? '') || back.has(visitId ?? '')) continue;
    const { trialId, round, side = '' } = payload as Payload<'trial_round'>;
    out[trialId] = [...(out[trialId] ?? []), `${round}${side}`];
  }
  return out;
}
