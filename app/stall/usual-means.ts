import { meansUsedAt } from '@/client/store/habits';
import type { MeansKind } from '@/core/records/means-kind';
import { meansOf } from '@/core/visit/attempt-times';
import type { Visit } from '@/core/visit/derive';
import type { Records } from './stall-state';

export type UsualMeans = { meansKind: MeansKind; meansId?: string; label?: string };

/** The means that Card shown takes: the one of this visit, else the last at this network, else a contactless card, else the first held. */
export function usualMeans(visit: Visit, records: Records, networkId: string | undefined): UsualMeans {
  const withLabel = (m: { meansKind: MeansKind; meansId?: string }): UsualMeans => ({
    ...m,
    label: records.means.find((r) => r.id === m.meansId)?.fields.label,
  });
  const last = visit.attempts
    .map(meansOf)
    .filter((m) => m !== undefined)
    .at(-1);
  if (last) return withLabel({ meansKind: last.meansKind, ...(last.meansId ? { meansId: last.meansId } : {}) });
  const remembered = networkId ? meansUsedAt(networkId) : undefined;
  if (remembered) return withLabel(remembered);
  const first =
    records.means.find((m) => m.fields.kind === 'contactless') ?? [...records.means].sort((a, b) => a.fields.label.localeCompare(b.fields.label))[0];
  return first ? { meansKind: first.fields.kind, meansId: first.id, label: first.fields.label } : { meansKind: 'contactless' };
}
