import type { RowDataPacket } from 'mysql2/promise';
import type { MileRecord } from '@/core/records/record-schema';
import { otherPrices } from '@/core/tariff/price-draft';
import { keptTariff, tariffOn } from '@/core/tariff/tariff-on';
import { localDay } from '@/core/units/zoned';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { readRecord, recordsOf, recordsWhere } from '../records/record-tables';
import { eventsOfVisits } from '../visits/event-rows';
import { seen, seenBy } from '../visits/seen-by';

/** What a post was noted to say that is on file as no price yet. */
export type NotedPrice = { perKWh: string; currency: string; day: string; where: string };
/** Visits whose notes of prices are read, the newest. */
const LOOKED_AT = 12;

/** Everything about the prices of a site; `null` for an id that is unknown in this household. */
export async function pricesPage(who: Who, siteId: string) {
  const { householdId } = who;
  const site = await readRecord(householdId, 'site', siteId);
  if (!site) return null;
  const [network, tariffs, all, sites, plans, providers] = await Promise.all([
    readRecord(householdId, 'network', site.fields.networkId),
    recordsWhere(householdId, 'tariff', 'networkId', [site.fields.networkId]),
    recordsOf(householdId, 'tariff'),
    recordsWhere(householdId, 'site', 'networkId', [site.fields.networkId]),
    recordsOf(householdId, 'plan'),
    recordsOf(householdId, 'provider'),
  ]);
  const today = localDay(now(), site.fields.zone);
  const place = { siteId, networkId: site.fields.networkId };
  // What was put away counts for the visits of its days, and is today’s price no more.
  const standing = tariffs.filter((t) => !t.archived);
  const inForce = new Set(
    [
      { planId: null, providerId: null },
      ...plans.map((p) => ({ planId: p.id, providerId: null })),
      ...providers.map((p) => ({ planId: null, providerId: p.id })),
    ].flatMap((payer) => tariffOn(standing, place, today, payer)?.id ?? []),
  );
  const siteName = new Map(sites.map((s) => [s.id, s.fields.name]));
  const planName = new Map(plans.map((p) => [p.id, p.fields.name]));
  const providerName = new Map(providers.map((p) => [p.id, p.fields.name]));
  const ofWhat = (t: MileRecord<'tariff'>): string =>
    t.fields.siteId === null
      ? `all of ${network?.fields.name ?? 'the network'}`
      : [t.fields.siteId, ...t.fields.moreSiteIds].map((id) => siteName.get(id) ?? 'another site').join(', ');
  const forWhom = (t: MileRecord<'tariff'>): string =>
    t.fields.planId
      ? `with ${planName.get(t.fields.planId) ?? 'a plan'}`
      : t.fields.providerId
        ? `through ${providerName.get(t.fields.providerId) ?? 'a provider'}`
        : 'for guests';
  const here = tariffs
    .filter((t) => t.fields.siteId === null || t.fields.siteId === siteId || t.fields.moreSiteIds.includes(siteId))
    .sort(
      (a, b) =>
        Number(inForce.has(b.id)) - Number(inForce.has(a.id)) ||
        (a.fields.validFrom < b.fields.validFrom ? 1 : a.fields.validFrom > b.fields.validFrom ? -1 : 0),
    );
  const networks = new Map((await recordsOf(householdId, 'network')).map((n) => [n.id, n.fields.name]));
  const offered = plans.filter((p) => !p.archived && (p.fields.networkId === null || p.fields.networkId === site.fields.networkId));
  return {
    site,
    network,
    sites: sites.filter((s) => !s.archived).map((s) => ({ id: s.id, name: s.fields.name })),
    plans: offered.map((p) => ({ id: p.id, name: p.fields.name })),
    providers: providers.filter((p) => !p.archived).map((p) => ({ id: p.id, name: p.fields.name })),
    prices: here.map((t) => ({
      tariff: keptTariff(t),
      archived: t.archived,
      rev: t.rev,
      forWhom: forWhom(t),
      ofWhat: ofWhat(t),
      now: inForce.has(t.id),
    })),
    records: here,
    others: otherPrices(all, (network, of) => `${networks.get(network) ?? 'Unknown network'}, ${of === null ? 'all' : (siteName.get(of) ?? 'one site')}`),
    guest: tariffOn(standing, place, today) ?? null,
    noted: await notedPrice(who, siteId, here),
    today,
  };
}

/** The newest price that somebody noted at the site and that no price on file of that day says. */
async function notedPrice({ householdId, personId }: Who, siteId: string, tariffs: readonly MileRecord<'tariff'>[]): Promise<NotedPrice | null> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT v.id FROM visit v WHERE v.household_id = ? AND v.site_id = ? AND v.withdrawn = FALSE AND ${seen()} ORDER BY v.sort_at DESC LIMIT ${LOOKED_AT}`,
    [toBin(householdId), toBin(siteId), seenBy(personId)],
  );
  const ids = rows.map((r) => fromBin(r.id));
  const events = await eventsOfVisits(householdId, ids);
  for (const id of ids) {
    const visit = deriveVisit(id, events.get(id) ?? [], payloadProblem);
    const noted = visit.line.findLast((e) => e.kind === 'price_shown' && e.payload.perKWh !== undefined);
    if (noted?.kind !== 'price_shown' || noted.payload.perKWh === undefined) continue;
    const day = localDay(noted.t, visit.zone);
    const known = tariffs.some((t) => Number(t.fields.perKWh) === Number(noted.payload.perKWh) && t.fields.validFrom <= day);
    return known ? null : { perKWh: noted.payload.perKWh, currency: noted.payload.currency ?? '', day, where: noted.payload.where };
  }
  return null;
}
export type PricesPage = NonNullable<Awaited<ReturnType<typeof pricesPage>>>;
