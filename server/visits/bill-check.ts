import type { MileRecord } from '@/core/records/record-schema';
import { type CheckedBill, checkedBill } from '@/core/tariff/checked-bill';
import { grouped } from '@/core/units/grouped';
import type { Visit } from '@/core/visit/derive';
import { recordsOf, recordsWhere } from '../records/record-tables';

/**
 * What visits at some sites should cost by the prices on file, set against what was charged. The prices are read once for all of them.
 * @returns given a visit and the stalls that it names, the check; `null` at a site that was not asked for, or without a price
 */
export async function billCheck(
  householdId: string,
  sites: readonly MileRecord<'site'>[],
  networks: readonly MileRecord<'network'>[],
): Promise<(visit: Visit, stalls: readonly MileRecord<'stall'>[]) => CheckedBill | null> {
  const [tariffs, plans, means, providers] = await Promise.all([
    recordsWhere(householdId, 'tariff', 'networkId', [...new Set(sites.map((s) => s.fields.networkId))]),
    recordsOf(householdId, 'plan'),
    recordsOf(householdId, 'means'),
    recordsOf(householdId, 'provider'),
  ]);
  const own = await recordsWhere(householdId, 'site', 'id', [...new Set(tariffs.flatMap((t) => t.fields.siteId ?? []))]);
  const [pricesOf, sitesOf] = [grouped(tariffs, (t) => t.fields.networkId), grouped(own, (s) => s.fields.networkId)];
  return (visit, stalls) => {
    const site = sites.find((s) => s.id === visit.siteId);
    if (!site) return null;
    const { networkId } = site.fields;
    const network = networks.find((n) => n.id === networkId)?.fields.name ?? 'the network';
    return checkedBill(visit, { site, network, stalls, tariffs: pricesOf.get(networkId) ?? [], sites: sitesOf.get(networkId) ?? [], plans, means, providers });
  };
}
