import type { MileRecord } from '@/core/records/record-schema';
import { type CheckedBill, checkedBill, type PriceRecords } from '@/core/tariff/checked-bill';
import { grouped } from '@/core/units/grouped';
import type { Visit } from '@/core/visit/derive';
import { recordsOf, recordsWhere } from '../records/record-tables';

/**
 * The prices that visits at some sites are held against, read once for all of them.
 * @returns given a visit, what its price rests on; `null` at a site that was not asked for
 */
export async function pricesAgainst(householdId: string, sites: readonly MileRecord<'site'>[]): Promise<(visit: Pick<Visit, 'siteId'>) => PriceRecords | null> {
  const [tariffs, plans, means] = await Promise.all([
    recordsWhere(householdId, 'tariff', 'networkId', [...new Set(sites.map((s) => s.fields.networkId))]),
    recordsOf(householdId, 'plan'),
    recordsOf(householdId, 'means'),
  ]);
  const [pricesOf, siteOf] = [grouped(tariffs, (t) => t.fields.networkId), new Map(sites.map((s) => [s.id, s]))];
  return ({ siteId }) => {
    const site = siteOf.get(siteId ?? '');
    return site ? { site, tariffs: pricesOf.get(site.fields.networkId) ?? [], plans, means } : null;
  };
}

/** What a visit should cost by the prices on file, set against what was charged. @param stalls that it names; `null` without a price */
export async function billCheck(
  householdId: string,
  site: MileRecord<'site'>,
  networks: readonly MileRecord<'network'>[],
  visit: Visit,
  stalls: readonly MileRecord<'stall'>[],
): Promise<CheckedBill | null> {
  const [against, providers] = await Promise.all([pricesAgainst(householdId, [site]), recordsOf(householdId, 'provider')]);
  const records = against({ siteId: site.id });
  if (!records) return null;
  const sites = await recordsWhere(householdId, 'site', 'id', [...new Set(records.tariffs.flatMap((t) => t.fields.siteId ?? []))]);
  const network = networks.find((n) => n.id === site.fields.networkId)?.fields.name ?? 'the network';
  return checkedBill(visit, { ...records, network, stalls, sites, providers });
}
