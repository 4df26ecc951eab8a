import type { MileRecord } from '@/core/records/record-schema';
import { byPost } from '@/core/records/stall-plate';
import type { RecordChoices } from './correct-fields';

type Lists = { [T in 'site' | 'stall' | 'car' | 'adapter' | 'means']: readonly MileRecord<T>[] };

/** The records of a household as choices of a form; stalls are those of one site. */
export function recordChoices(records: Lists, siteId: string | null): RecordChoices {
  const named = (list: readonly { id: string; fields: { name: string } }[]) => list.map((r) => ({ id: r.id, name: r.fields.name }));
  return {
    site: named([...records.site].sort((a, b) => a.fields.name.localeCompare(b.fields.name))),
    stall: named(records.stall.filter((s) => s.fields.siteId === siteId).sort(byPost)),
    car: named(records.car),
    adapter: named(records.adapter),
    means: records.means.map((m) => ({ id: m.id, name: m.fields.label })),
  };
}
