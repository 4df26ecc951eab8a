import type { MileRecord } from '@/core/records/record-schema';
import { billVerdict } from '@/core/tariff/checked-bill';
import { grouped } from '@/core/units/grouped';
import type { Visit } from '@/core/visit/derive';
import type { Reader } from '../db/pool';
import { recordsIn, recordsWhere } from '../records/record-tables';

/** Holds bills against the prices on file of some networks, read once for all of them. @param on the transaction whose own writes are seen too */
export async function billsAgainst(householdId: string, networkIds: ReadonlySet<string>, on: Reader): Promise<(visit: Visit) => 'right' | 'off' | null> {
  const tariffs = await recordsWhere(householdId, 'tariff', 'networkId', [...networkIds], on);
  if (tariffs.length === 0) return () => null;
  const sites = new Map((await recordsWhere(householdId, 'site', 'networkId', [...networkIds], on)).map((s): [string, MileRecord<'site'>] => [s.id, s]));
  const [plans, means] = [await recordsIn(on, householdId, 'plan'), await recordsIn(on, householdId, 'means')];
  const byNetwork = grouped(tariffs, (t) => t.fields.networkId);
  return (visit) => {
    const site = sites.get(visit.siteId ?? '');
    const prices = site ? byNetwork.get(site.fields.networkId) : undefined;
    return site && prices ? billVerdict(visit, { site, tariffs: prices, plans, means }) : null;
  };
}
