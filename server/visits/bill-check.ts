import type { MileRecord } from '@/core/records/record-schema';
import { type CheckedBill, checkedBill } from '@/core/tariff/checked-bill';
import type { Visit } from '@/core/visit/derive';
import { recordsOf, recordsWhere } from '../records/record-tables';

/** What a visit should cost by the prices on file, set against what was charged. @param named the records that the visit names, its network too */
export async function billCheck(householdId: string, visit: Visit, site: MileRecord<'site'>, named: readonly MileRecord[]): Promise<CheckedBill | null> {
  const [tariffs, plans, means, providers] = await Promise.all([
    recordsWhere(householdId, 'tariff', 'networkId', [site.fields.networkId]),
    recordsOf(householdId, 'plan'),
    recordsOf(householdId, 'means'),
    recordsOf(householdId, 'provider'),
  ]);
  const own = new Set(tariffs.flatMap((t) => t.fields.siteId ?? []));
  return checkedBill(visit, {
    site,
    network: named.find((r): r is MileRecord<'network'> => r.type === 'network' && r.id === site.fields.networkId)?.fields.name ?? 'the network',
    stalls: named.filter((r): r is MileRecord<'stall'> => r.type === 'stall'),
    tariffs,
    sites: await recordsWhere(householdId, 'site', 'id', [...own]),
    plans,
    means,
    providers,
  });
}
