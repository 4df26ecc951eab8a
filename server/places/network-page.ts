import type { RowDataPacket } from 'mysql2/promise';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { type PlaceRecord, placeFigures, placeRecord } from '@/core/compare/place-record';
import { faultLabel } from '@/core/faults/fault-list';
import type { MileRecord } from '@/core/records/record-schema';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { readRecord, recordsWhere } from '../records/record-tables';
import { compareRows } from '../visits/compare-query';
import { seen, seenBy } from '../visits/seen-by';

/** Everything the page of a network shows. */
export type NetworkPage = {
  network: MileRecord<'network'>;
  sites: { id: string; name: string; archived: boolean; zone: string }[];
  record: PlaceRecord;
  /** The newest visits with a fault. */
  faults: { label: string; siteName: string; at: number; zone: string; visitId: string }[];
};
const FAULTS_SHOWN = 10;

/** The page of a network; `null` for an id that is unknown in this household. */
export async function networkPage(who: Who, networkId: string, currency: string): Promise<NetworkPage | null> {
  const { householdId, personId } = who;
  const network = await readRecord(householdId, 'network', networkId);
  if (!network) return null;
  const asked = { time: 'handshake', mark: 'kW', currency } as const;
  const [sites, rows] = await Promise.all([
    recordsWhere(householdId, 'site', 'networkId', [networkId]),
    compareRows(who, currency, { ...readLedgerFilter(() => null), network: networkId }, placeFigures(asked)),
  ]);
  const names = new Map(sites.map((s) => [s.id, s.fields.name]));
  const [found] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, v.site_id, v.sort_at, v.zone, f.fault_codes FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
      WHERE v.household_id = ? AND v.network_id = ? AND v.withdrawn = FALSE AND ${seen()} AND f.faults > 0 ORDER BY v.sort_at DESC LIMIT ${FAULTS_SHOWN}`,
    [toBin(householdId), toBin(networkId), seenBy(personId)],
  );
  return {
    network,
    sites: sites.map((s) => ({ id: s.id, name: s.fields.name, archived: s.archived, zone: s.fields.zone })),
    record: placeRecord(rows, asked, 'site'),
    faults: found.map((r) => ({
      label: String(r.fault_codes).split(',').map(faultLabel).join(', '),
      siteName: names.get(fromBin(r.site_id)) ?? 'a site not known here',
      at: (r.sort_at as Date).getTime(),
      zone: r.zone as string,
      visitId: fromBin(r.id),
    })),
  };
}
