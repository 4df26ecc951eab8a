import type { RowDataPacket } from 'mysql2/promise';
import type { SiteRow } from '@/core/compare/site-row';
import { POPULATIONS } from '@/core/figures/populations';
import { compatibleStalls, type Lately } from '@/core/power/compatible-stalls';
import type { MileRecord } from '@/core/records/record-schema';
import { tariffOn } from '@/core/tariff/tariff-on';
import { localDay } from '@/core/units/zoned';
import type { Dangers } from '@/core/visit/dangers';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { conditionSql } from '../figures/condition-sql';
import { figuresOf } from '../figures/refresh';
import { readRecord, recordsOf } from '../records/record-tables';
import { seen, seenBy } from '../visits/seen-by';
import { stallDangers } from '../visits/stall-dangers';
import { stallsLately } from '../visits/stalls-lately';

/** All sites of a household with what its visits count, by name; archived ones too. */
export async function siteList({ householdId, personId }: Who): Promise<SiteRow[]> {
  const figures = await figuresOf(householdId);
  const hh = toBin(householdId);
  const anyTime = { time: 'handshake', mark: 'kW', currency: '' } as const;
  const [yes, no] = [conditionSql(POPULATIONS.first_yes.who(anyTime)), conditionSql(POPULATIONS.first_no.who(anyTime))];
  const [[sites], [stalls], [visits], [dangers], tariffs] = await Promise.all([
    figures.execute<RowDataPacket[]>(
      `SELECT s.id, s.name, s.network_id, s.zone, s.latitude, s.longitude, s.archived_at, n.name AS network_name
         FROM site s LEFT JOIN network n ON n.household_id = s.household_id AND n.id = s.network_id WHERE s.household_id = ? ORDER BY s.name, s.id`,
      [hh],
    ),
    figures.execute<RowDataPacket[]>(
      'SELECT site_id, COUNT(*) AS stalls, MAX(most_kw) AS most_kw FROM stall WHERE household_id = ? AND archived_at IS NULL GROUP BY site_id',
      [hh],
    ),
    figures.execute<RowDataPacket[]>(
      `SELECT v.site_id, COUNT(*) AS visits, SUM(${yes.sql}) AS yes, SUM(${no.sql}) AS no, MAX(v.sort_at) AS last_at
         FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
        WHERE v.household_id = ? AND v.withdrawn = FALSE AND ${seen()} AND v.site_id IS NOT NULL GROUP BY v.site_id`,
      [...yes.values, ...no.values, hh, seenBy(personId)],
    ),
    figures.execute<RowDataPacket[]>(
      `SELECT t.site_id, COUNT(DISTINCT d.stall_id) AS stalls FROM stall_danger d JOIN visit v ON v.household_id = d.household_id AND v.id = d.visit_id
         JOIN stall t ON t.household_id = d.household_id AND t.id = d.stall_id WHERE d.household_id = ? AND v.withdrawn = FALSE GROUP BY t.site_id`,
      [hh],
    ),
    recordsOf(householdId, 'tariff'),
  ]);
  const key = (id: Buffer) => id.toString('hex');
  const stallsOf = new Map(stalls.map((r) => [key(r.site_id), r]));
  const visitsOf = new Map(visits.map((r) => [key(r.site_id), r]));
  const dangersOf = new Map(dangers.map((r) => [key(r.site_id), Number(r.stalls)]));
  const standing = tariffs.filter((t) => !t.archived);
  const priceOf = (siteId: string, networkId: string, zone: string): SiteRow['price'] => {
    const t = tariffOn(standing, { siteId, networkId }, localDay(now(), zone));
    return t?.perKWh ? { perKWh: t.perKWh, currency: t.currency, since: t.validFrom } : null;
  };
  return sites.map((s): SiteRow => {
    const st = stallsOf.get(key(s.id));
    const v = visitsOf.get(key(s.id));
    return {
      id: fromBin(s.id),
      name: s.name,
      networkName: s.network_name ?? 'Unknown network',
      latitude: s.latitude === null ? null : Number(s.latitude),
      longitude: s.longitude === null ? null : Number(s.longitude),
      archived: s.archived_at !== null,
      stalls: Number(st?.stalls ?? 0),
      mostKW: st?.most_kw == null ? null : Number(st.most_kw),
      visits: Number(v?.visits ?? 0),
      firstYes: Number(v?.yes ?? 0),
      firstNo: Number(v?.no ?? 0),
      lastAt: v?.last_at ? (v.last_at as Date).getTime() : null,
      zone: s.zone,
      dangers: dangersOf.get(key(s.id)) ?? 0,
      price: tariffs.length === 0 ? null : priceOf(fromBin(s.id), fromBin(s.network_id), s.zone),
    };
  });
}

/** The same list with what each site can give one car. @param today local day, `2025-10-15` @returns `null` when the car is not known */
export async function siteListFor(who: Who, carId: string, today: string): Promise<SiteRow[] | null> {
  const { householdId } = who;
  const car = await readRecord(householdId, 'car', carId);
  if (!car) return null;
  const [rows, sites, stalls, adapters, means, enrolments, lately, dangers] = await Promise.all([
    siteList(who),
    recordsOf(householdId, 'site'),
    recordsOf(householdId, 'stall'),
    recordsOf(householdId, 'adapter'),
    recordsOf(householdId, 'means'),
    recordsOf(householdId, 'enrolment'),
    stallsLately(who),
    stallDangers(householdId),
  ]);
  const bySite = new Map<string, MileRecord<'stall'>[]>();
  for (const s of stalls) bySite.set(s.fields.siteId, [...(bySite.get(s.fields.siteId) ?? []), s]);
  const siteOf = new Map(sites.map((s) => [s.id, s]));
  return rows.map((row) => ({
    ...row,
    fitsKW: bestKW({ car, adapters, means, enrolments }, siteOf.get(row.id), bySite.get(row.id) ?? [], { lately, dangers }, today),
  }));
}

function bestKW(
  garage: Parameters<typeof compatibleStalls>[0],
  site: MileRecord<'site'> | undefined,
  stalls: MileRecord<'stall'>[],
  seen: { lately: Lately; dangers: Dangers },
  today: string,
): number | null {
  if (!site) return null;
  const kW = compatibleStalls(garage, { site, stalls, dangers: seen.dangers }, seen.lately, today).flatMap((a) =>
    // Where danger was reported nothing is promised.
    a.use === 'no' || a.kW === null || a.reasons.some((r) => r.code === 'danger') ? [] : [a.kW],
  );
  return kW.length > 0 ? Math.max(...kW) : null;
}

/** The site of the last visit, else the first by name; `null` without sites. */
export async function lastSite({ householdId, personId }: Who): Promise<string | null> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT s.id FROM site s LEFT JOIN visit v ON v.household_id = s.household_id AND v.site_id = s.id AND v.withdrawn = FALSE AND ${seen()}
      WHERE s.household_id = ? AND s.archived_at IS NULL GROUP BY s.id, s.name ORDER BY MAX(v.sort_at) IS NULL, MAX(v.sort_at) DESC, s.name LIMIT 1`,
    [seenBy(personId), toBin(householdId)],
  );
  return rows[0] ? fromBin(rows[0].id) : null;
}
