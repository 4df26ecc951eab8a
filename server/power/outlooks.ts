import type { RowDataPacket } from 'mysql2/promise';
import type { CarState } from '@/core/power/consumption';
import { outlooksOf, type StartThere } from '@/core/power/site-outlook';
import type { Outlooks } from '@/core/power/stay-or-go';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { recordsOf } from '../records/record-tables';
import { eventsOfVisits } from '../visits/event-rows';
import { seen, seenBy } from '../visits/seen-by';
import { pastSessions } from './past-sessions';

/** The newest of each are enough: what was years ago says little of tomorrow. */
const MOST_STARTS = 4_000;
const MOST_SESSIONS = 1_000;

/** What a household's ledger knows of its sites and cars, for advice on a phone without a network. */
export async function outlooks(who: Who): Promise<Outlooks> {
  const { householdId, personId } = who;
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT v.site_id, v.network_id, f.first_try, f.handshake_s, f.lost_s, f.arrival_day
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
      WHERE v.household_id = ? AND v.withdrawn = FALSE AND f.left_out = FALSE AND f.trial_id IS NULL AND f.attempts > 0 AND v.site_id IS NOT NULL AND ${seen()}
      ORDER BY v.sort_at DESC LIMIT ${MOST_STARTS}`,
    [toBin(householdId), seenBy(personId)],
  );
  const starts = rows.map(
    (r): StartThere => ({
      siteId: fromBin(r.site_id),
      networkId: r.network_id === null ? null : fromBin(r.network_id),
      good: r.first_try === 'yes',
      handshake_s: r.handshake_s,
      lost_s: r.lost_s,
      day: String(r.arrival_day ?? ''),
    }),
  );
  const [past, sites] = await Promise.all([pastSessions(who, { time: 'handshake', mark: 'kW' }, MOST_SESSIONS), recordsOf(householdId, 'site')]);
  const found = outlooksOf(starts, past, new Map(sites.filter((s) => !s.archived).map((s) => [s.id, s.fields.networkId])));
  const cars = await Promise.all(Object.entries(found.cars).map(async ([id, car]) => [id, { ...car, left: await leftWith(who, id) }] as const));
  return { ...found, cars: Object.fromEntries(cars) };
}

/** What odometer and battery showed at a car's last stop that is over; `null` where either was not noted. */
async function leftWith({ householdId, personId }: Who, carId: string): Promise<CarState | null> {
  const [[row]] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT id FROM visit v WHERE household_id = ? AND car_id = ? AND withdrawn = FALSE AND pulled_out_at IS NOT NULL AND ${seen()} ORDER BY sort_at DESC LIMIT 1`,
    [toBin(householdId), toBin(carId), seenBy(personId)],
  );
  if (!row) return null;
  const visitId = fromBin(row.id);
  const visit = deriveVisit(visitId, (await eventsOfVisits(householdId, [visitId])).get(visitId) ?? [], payloadProblem);
  const odometerKm = visit.line.find((e) => e.kind === 'pulled_in')?.payload.odometerKm;
  const socPct = visit.socTo ?? visit.socFrom;
  return odometerKm === undefined || socPct === null ? null : { odometerKm, socPct };
}
