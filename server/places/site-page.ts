import type { RowDataPacket } from 'mysql2/promise';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { type PlaceRecord, placeFigures, placeRecord } from '@/core/compare/place-record';
import { faultLabel } from '@/core/faults/fault-list';
import { bestStalls, bestWords, compatibleStalls, type Lately, type StallAnswer } from '@/core/power/compatible-stalls';
import { meansProblem } from '@/core/power/means-here';
import type { MileRecord, RecordFields } from '@/core/records/record-schema';
import { byPost } from '@/core/records/stall-plate';
import { tariffOn } from '@/core/tariff/tariff-on';
import { localDay } from '@/core/units/zoned';
import { byStall, type Dangers } from '@/core/visit/dangers';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { readRecord, recordsOf, recordsWhere } from '../records/record-tables';
import { compareRows } from '../visits/compare-query';
import { eventsOfVisits } from '../visits/event-rows';
import { seen, seenBy } from '../visits/seen-by';
import { reportedDangers } from '../visits/stall-dangers';
import { stallsLately } from '../visits/stalls-lately';

/** `here`: it is not bound to another network. */
export type HeldMeans = {
  id: string;
  label: string;
  kind: string;
  here: boolean;
  accepted: boolean | null;
  problem: string | null;
  power: number;
  attempts: number;
};
export type SeenFault = { label: string; stall: string; at: number; visitId: string };
export type SitePage = {
  site: MileRecord<'site'>;
  network: MileRecord<'network'> | null;
  stalls: MileRecord<'stall'>[];
  archivedStalls: MileRecord<'stall'>[];
  cars: { id: string; name: string }[];
  carId: string | null;
  answers: StallAnswer[];
  best: string[];
  bestWords: string;
  adapters: { id: string; name: string }[];
  lately: Lately;
  dangers: Dangers;
  record: PlaceRecord;
  visits: number;
  lastAt: number | null;
  means: HeldMeans[];
  tariff: (RecordFields<'tariff'> & { id: string }) | null;
  faults: SeenFault[];
  today: string;
};

/** Faults read from the newest so many visits that had one. */
const FAULTY_VISITS = 12;

/**
 * Everything the page of a site shows; `null` for an id that is unknown in this household.
 * @param carId the car that is asked about; otherwise the one that was here last, or the first
 */
export async function sitePage(who: Who, siteId: string, carId: string | undefined, currency: string): Promise<SitePage | null> {
  const { householdId } = who;
  const site = await readRecord(householdId, 'site', siteId);
  if (!site) return null;
  const today = localDay(now(), site.fields.zone);
  const asked = { time: 'handshake', mark: 'kW', currency } as const;
  const [network, stalls, allCars, adapters, means, enrolments, tariffs, lately, dangers, rows, visits, stats] = await Promise.all([
    readRecord(householdId, 'network', site.fields.networkId),
    recordsWhere(householdId, 'stall', 'siteId', [siteId]),
    recordsOf(householdId, 'car'),
    recordsOf(householdId, 'adapter'),
    recordsOf(householdId, 'means'),
    recordsOf(householdId, 'enrolment'),
    recordsWhere(householdId, 'tariff', 'networkId', [site.fields.networkId]),
    stallsLately(who, siteId),
    reportedDangers(householdId),
    compareRows(who, currency, { ...readLedgerFilter(() => null), site: siteId }, placeFigures(asked)),
    visitsHere(who, siteId),
    meansStats(who, siteId),
  ]);
  const cars = allCars.filter((c) => !c.archived);
  const car = cars.find((c) => c.id === carId) ?? cars.find((c) => c.id === visits.lastCar) ?? cars[0];
  const standing = stalls.filter((s) => !s.archived).sort(byPost);
  const answers = car ? compatibleStalls({ car, adapters, means, enrolments }, { site, stalls: standing, dangers: byStall(dangers) }, lately, today) : [];
  return {
    site,
    network,
    stalls: standing,
    archivedStalls: stalls.filter((s) => s.archived).sort(byPost),
    cars: cars.map((c) => ({ id: c.id, name: c.fields.name })),
    carId: car?.id ?? null,
    answers,
    best: bestStalls(answers),
    bestWords: bestWords(answers, lately),
    adapters: adapters.map((a) => ({ id: a.id, name: a.fields.name })),
    lately,
    dangers: byStall(dangers),
    record: placeRecord(rows, asked, 'stall'),
    visits: visits.count,
    lastAt: visits.lastAt,
    means: means
      .filter((m) => !m.archived)
      .map((m) => ({
        id: m.id,
        label: m.fields.label,
        kind: m.fields.kind,
        here: m.fields.networkId === null || m.fields.networkId === site.fields.networkId,
        accepted: site.fields.meansAccepted === null ? null : site.fields.meansAccepted.includes(m.fields.kind),
        problem: meansProblem(m.fields, { networkId: site.fields.networkId, carId: car?.id ?? null, today }, enrolments),
        ...(stats.get(m.id) ?? { power: 0, attempts: 0 }),
      })),
    tariff:
      tariffOn(
        tariffs.filter((t) => !t.archived),
        { siteId, networkId: site.fields.networkId },
        today,
      ) ?? null,
    faults: await faultsSeen(who, siteId, new Map(stalls.map((s) => [s.id, s.fields.name]))),
    today,
  };
}

async function visitsHere({ householdId, personId }: Who, siteId: string): Promise<{ count: number; lastAt: number | null; lastCar: string | null }> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT COUNT(*) OVER () AS n, sort_at, car_id FROM visit WHERE household_id = ? AND site_id = ? AND withdrawn = FALSE AND ${seen('visit')} ORDER BY sort_at DESC LIMIT 1`,
    [toBin(householdId), toBin(siteId), seenBy(personId)],
  );
  const last = rows[0];
  return { count: Number(last?.n ?? 0), lastAt: last ? (last.sort_at as Date).getTime() : null, lastCar: last?.car_id ? fromBin(last.car_id) : null };
}

/** Attempts at a site by means, and those of them that got power. */
async function meansStats({ householdId, personId }: Who, siteId: string): Promise<Map<string, { power: number; attempts: number }>> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT a.means_id, COUNT(*) AS attempts, SUM(a.outcome = 'power') AS power
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
       JOIN attempt_figures a ON a.household_id = v.household_id AND a.visit_id = v.id
      WHERE v.household_id = ? AND v.site_id = ? AND v.withdrawn = FALSE AND f.left_out = FALSE AND ${seen()} AND a.means_id IS NOT NULL GROUP BY a.means_id`,
    [toBin(householdId), toBin(siteId), seenBy(personId)],
  );
  return new Map(rows.map((r) => [fromBin(r.means_id), { power: Number(r.power), attempts: Number(r.attempts) }]));
}

async function faultsSeen({ householdId, personId }: Who, siteId: string, stallNames: ReadonlyMap<string, string>): Promise<SeenFault[]> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT v.id FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
      WHERE v.household_id = ? AND v.site_id = ? AND v.withdrawn = FALSE AND ${seen()} AND f.faults > 0 ORDER BY v.sort_at DESC LIMIT ${FAULTY_VISITS}`,
    [toBin(householdId), toBin(siteId), seenBy(personId)],
  );
  const events = await eventsOfVisits(
    householdId,
    rows.map((r) => fromBin(r.id)),
  );
  return [...events]
    .flatMap(([visitId, list]) => {
      let stall = '';
      return deriveVisit(visitId, list, payloadProblem).line.flatMap((e): SeenFault[] => {
        if (e.kind === 'stall_chosen') stall = stallNames.get(e.payload.stallId) ?? '';
        const code = e.kind === 'fault' ? e.payload.code : e.kind === 'means_refused' ? (e.payload.fault ?? 'card_refused') : null;
        return code ? [{ label: faultLabel(code), stall, at: e.t, visitId }] : [];
      });
    })
    .sort((a, b) => b.at - a.at);
}
