import type { RowDataPacket } from 'mysql2/promise';
import type { MileRecord } from '@/core/records/record-schema';
import { type Statement, statement, statementRow } from '@/core/tariff/statement';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import { seesAll } from '@/core/visit/private';
import { membersOf } from '../accounts/members';
import type { SignedIn } from '../accounts/sessions';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { recordsOf } from '../records/record-tables';
import { eventsOfVisits } from '../visits/event-rows';

/** Visits of one statement: of more a month is asked. */
const MOST_VISITS = 3_000;

/** What a household paid in a month, `2025-10`, or a year. `beyond`: visits that are not in it for being too many. */
export async function statementPage(who: SignedIn, period: string): Promise<{ statement: Statement; beyond: number }> {
  const { householdId, personId } = who;
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, COUNT(*) OVER () AS n FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
      WHERE v.household_id = ? AND v.withdrawn = FALSE AND v.local_month BETWEEN ? AND ? AND (f.paid IS NOT NULL OR f.ended = 'charge') ORDER BY v.sort_at LIMIT ${MOST_VISITS}`,
    [toBin(householdId), period.length === 4 ? `${period}-01` : period, period.length === 4 ? `${period}-12` : period],
  );
  const ids = rows.map((r) => fromBin(r.id));
  const [events, sites, cars, people] = await Promise.all([
    eventsOfVisits(householdId, ids),
    recordsOf(householdId, 'site'),
    recordsOf(householdId, 'car'),
    membersOf(householdId),
  ]);
  const named = <T extends 'site' | 'car'>(list: readonly MileRecord<T>[]) => new Map(list.map((r) => [r.id, r.fields.name]));
  const [siteName, carName] = [named(sites), named(cars)];
  const list = ids.map((id) => {
    const v = deriveVisit(id, events.get(id) ?? [], payloadProblem);
    const names = {
      place: siteName.get(v.siteId ?? '') ?? 'Unknown site',
      car: carName.get(v.carId ?? '') ?? 'Car not named',
      driver: people.find((p) => p.personId === v.driverId)?.name ?? 'somebody else',
    };
    return statementRow(v, names, seesAll(v, personId));
  });
  return { statement: statement(list), beyond: Number(rows[0]?.n ?? 0) - ids.length };
}
