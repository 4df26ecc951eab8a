import type { RowDataPacket } from 'mysql2/promise';
import type { MileRecord } from '@/core/records/record-schema';
import { type StatementRow, statementRow } from '@/core/tariff/statement';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import { privateTo, seesAll } from '@/core/visit/private';
import { membersOf } from '../accounts/members';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { recordsOf } from '../records/record-tables';
import { eventsOfVisits } from '../visits/event-rows';

/** Visits of one statement: of more a month is asked. */
const MOST_VISITS = 3_000;

/** Visits in a statement's words. @param as as this person sees them, or as nobody does of whom one of them is private */
async function rowsOfVisits(who: Who, visitIds: readonly string[], as: 'own' | 'nobody'): Promise<StatementRow[]> {
  const { householdId, personId } = who;
  const [events, sites, cars, people] = await Promise.all([
    eventsOfVisits(householdId, visitIds),
    recordsOf(householdId, 'site'),
    recordsOf(householdId, 'car'),
    membersOf(householdId),
  ]);
  const named = <T extends 'site' | 'car'>(list: readonly MileRecord<T>[]) => new Map(list.map((r) => [r.id, r.fields.name]));
  const [siteName, carName] = [named(sites), named(cars)];
  return visitIds.map((id) => {
    const v = deriveVisit(id, events.get(id) ?? [], payloadProblem);
    const names = {
      place: siteName.get(v.siteId ?? '') ?? 'Unknown site',
      car: carName.get(v.carId ?? '') ?? 'Car not named',
      driver: people.find((p) => p.personId === v.driverId)?.name ?? 'somebody else',
    };
    return statementRow(v, names, as === 'own' ? seesAll(v, personId) : privateTo(v) === null);
  });
}

/** The visits of a month, `2025-10`, or a year that were charged or billed. `beyond`: visits that are not in it for being too many. */
export async function statementRows(who: Who, period: string, as: 'own' | 'nobody' = 'own'): Promise<{ rows: StatementRow[]; beyond: number }> {
  const [rows] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, COUNT(*) OVER () AS n FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
      WHERE v.household_id = ? AND v.withdrawn = FALSE AND v.local_month BETWEEN ? AND ? AND (f.paid IS NOT NULL OR f.ended = 'charge') ORDER BY v.sort_at LIMIT ${MOST_VISITS}`,
    [toBin(who.householdId), period.length === 4 ? `${period}-01` : period, period.length === 4 ? `${period}-12` : period],
  );
  const ids = rows.map((r) => fromBin(r.id));
  return { rows: await rowsOfVisits(who, ids, as), beyond: Number(rows[0]?.n ?? 0) - ids.length };
}
