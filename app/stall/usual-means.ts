import { meansUsedAt } from '@/client/store/habits';
import { carIsMeans, type MeansKind } from '@/core/records/means-kind';
import { meansOf } from '@/core/visit/attempt-times';
import type { Visit } from '@/core/visit/derive';
import type { Records } from './stall-state';

export type UsualMeans = { meansKind: MeansKind; meansId?: string; label?: string };

/**
 * The means that Card shown takes: the one of this visit, else the last at this network, else a contactless card, else the first
 * held. A means that asks for no act, as Autocharge, is dropped for the visit once it failed.
 */
export function usualMeans(visit: Visit, records: Records, networkId: string | undefined): UsualMeans {
  const failed = new Set<MeansKind>();
  for (const a of visit.attempts) {
    for (const r of a.refusals) failed.add(r.meansKind);
    const means = a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up' ? meansOf(a) : undefined;
    if (means) failed.add(means.meansKind);
  }
  const stands = (kind: MeansKind) => !(carIsMeans(kind) && failed.has(kind));
  const withLabel = (m: { meansKind: MeansKind; meansId?: string }): UsualMeans => ({
    meansKind: m.meansKind,
    ...(m.meansId ? { meansId: m.meansId } : {}),
    label: records.means.find((r) => r.id === m.meansId)?.fields.label,
  });
  const last = visit.attempts
    .map(meansOf)
    .filter((m) => m !== undefined && stands(m.meansKind))
    .at(-1);
  if (last) return withLabel(last);
  const remembered = networkId ? meansUsedAt(networkId) : undefined;
  if (remembered && stands(remembered.meansKind)) return withLabel(remembered);
  const held = records.means.filter((m) => stands(m.fields.kind)).sort((a, b) => a.fields.label.localeCompare(b.fields.label));
  const first = held.find((m) => m.fields.kind === 'contactless') ?? held[0];
  return first ? { meansKind: first.fields.kind, meansId: first.id, label: first.fields.label } : { meansKind: 'contactless' };
}
