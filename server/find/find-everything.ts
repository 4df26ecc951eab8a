import type { RowDataPacket } from 'mysql2/promise';
import { findBest } from '@/core/records/find-text';
import { type Found, findables } from '@/core/records/findables';
import { localDay, printDate, printLongDate } from '@/core/units/zoned';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { figuresOf } from '../visits/figures';

/** Answers shown at once. */
const MOST = 12;

/** The best answers of a household to what was typed: places, garage and visits by place and date. */
export async function findEverything(householdId: string, typed: string): Promise<Found[]> {
  const [records, visits] = await Promise.all([recordNames(householdId), visitsByPlaceAndDate(householdId)]);
  return findBest(typed, [...records, ...visits], MOST);
}

async function recordNames(householdId: string): Promise<Found[]> {
  const rowsOf = async (sql: string) =>
    (await pool().execute<RowDataPacket[]>(`${sql} WHERE household_id = ? AND archived_at IS NULL`, [toBin(householdId)]))[0];
  const named = async (type: string) => (await rowsOf(`SELECT id, name FROM ${type}`)).map((r) => ({ id: fromBin(r.id), name: r.name as string }));
  const [network, provider, car, adapter, means, site, stall] = await Promise.all([
    named('network'),
    named('provider'),
    named('car'),
    named('adapter'),
    rowsOf('SELECT id, label AS name FROM means').then((rows) => rows.map((r) => ({ id: fromBin(r.id), name: r.name as string }))),
    rowsOf('SELECT id, name, network_id FROM site').then((rows) =>
      rows.map((r) => ({ id: fromBin(r.id), name: r.name as string, networkId: fromBin(r.network_id) })),
    ),
    rowsOf("SELECT id, name, site_id, JSON_VALUE(details, '$.otherName') AS other_name FROM stall").then((rows) =>
      rows.map((r) => ({ id: fromBin(r.id), name: r.name as string, otherName: r.other_name as string | null, siteId: fromBin(r.site_id) })),
    ),
  ]);
  const standing = new Set(site.map((s) => s.id));
  return findables({ network, provider, car, adapter, means, site, stall: stall.filter((s) => standing.has(s.siteId)) });
}

async function visitsByPlaceAndDate(householdId: string): Promise<Found[]> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, v.sort_at, v.zone, s.name AS site_name, n.name AS network_name FROM visit v
       LEFT JOIN site s ON s.household_id = v.household_id AND s.id = v.site_id LEFT JOIN network n ON n.household_id = v.household_id AND n.id = v.network_id
      WHERE v.household_id = ? AND v.withdrawn = FALSE ORDER BY v.sort_at DESC`,
    [toBin(householdId)],
  );
  return rows.map((r): Found => {
    const at = (r.sort_at as Date).getTime();
    const place = r.site_name ?? 'Unknown site';
    return {
      kind: 'visit',
      id: fromBin(r.id),
      label: `${place}, ${printDate(at, r.zone)}`,
      line: `Visit, ${r.network_name ?? 'unknown network'}`,
      href: `/ledger/${fromBin(r.id)}`,
      text: `${place} ${printDate(at, r.zone)} ${printLongDate(at, r.zone)} ${localDay(at, r.zone)} visit`,
      weight: -4,
    };
  });
}
