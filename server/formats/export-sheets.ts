import { csvHead, csvLines, csvOut } from '@/core/formats/csv-out';
import { type SheetNames, SITE_COLUMNS, siteRow, TARIFF_COLUMNS, tariffRow, VISIT_SHEETS, type VisitSheetName } from '@/core/formats/ledger-tables';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import { membersOf } from '../accounts/members';
import type { Who } from '../accounts/who';
import { recordsOf } from '../records/record-tables';
import { eventsOfVisits } from '../visits/event-rows';
import { visitPortions } from './visit-portions';

export const RECORD_SHEETS = ['sites', 'tariffs'] as const;
export type SheetName = VisitSheetName | (typeof RECORD_SHEETS)[number];
export const SHEET_NAMES: readonly SheetName[] = [...(Object.keys(VISIT_SHEETS) as VisitSheetName[]), ...RECORD_SHEETS];

/** A sheet of a household, piece by piece: every visit that this person sees whole, oldest first, or every record. */
export async function* sheetOf(who: Who, name: SheetName): AsyncGenerator<string> {
  if (name === 'sites' || name === 'tariffs') {
    yield await recordSheet(who, name);
    return;
  }
  const { columns, rows } = VISIT_SHEETS[name];
  yield csvHead(columns);
  const names = await sheetNames(who);
  for await (const visitIds of visitPortions(who)) {
    const events = await eventsOfVisits(who.householdId, visitIds);
    yield csvLines(
      columns,
      visitIds.flatMap((id) => {
        const own = events.get(id);
        return own ? rows(deriveVisit(id, own, payloadProblem), names) : [];
      }),
    );
  }
}

/** What ids are called in a household. */
export async function sheetNames(who: Who): Promise<SheetNames> {
  const [sites, networks, stalls, cars, people] = await Promise.all([
    recordsOf(who.householdId, 'site'),
    recordsOf(who.householdId, 'network'),
    recordsOf(who.householdId, 'stall'),
    recordsOf(who.householdId, 'car'),
    membersOf(who.householdId),
  ]);
  const named = (all: readonly { id: string; fields: { name: string } }[]) => {
    const names = new Map(all.map((r) => [r.id, r.fields.name]));
    return (id: string | null) => (id ? (names.get(id) ?? null) : null);
  };
  const [network, networkOf, persons] = [
    named(networks),
    new Map(sites.map((s) => [s.id, s.fields.networkId])),
    new Map(people.map((p) => [p.personId, p.name])),
  ];
  return {
    site: named(sites),
    network: (siteId) => (siteId ? network(networkOf.get(siteId) ?? null) : null),
    stall: named(stalls),
    car: named(cars),
    person: (id) => (id ? (persons.get(id) ?? null) : null),
  };
}

async function recordSheet(who: Who, name: 'sites' | 'tariffs'): Promise<string> {
  const { householdId } = who;
  const [sites, networks] = await Promise.all([recordsOf(householdId, 'site'), recordsOf(householdId, 'network')]);
  const network = new Map(networks.map((n) => [n.id, n.fields.name]));
  if (name === 'sites') {
    const stalls = await recordsOf(householdId, 'stall');
    return csvOut(
      SITE_COLUMNS,
      sites.map((s) =>
        siteRow(
          s,
          network.get(s.fields.networkId) ?? null,
          stalls
            .filter((x) => x.fields.siteId === s.id)
            .map((x) => x.fields.name)
            .join(' '),
        ),
      ),
    );
  }
  const [tariffs, plans, providers] = await Promise.all([recordsOf(householdId, 'tariff'), recordsOf(householdId, 'plan'), recordsOf(householdId, 'provider')]);
  const site = new Map(sites.map((s) => [s.id, s.fields.name]));
  return csvOut(
    TARIFF_COLUMNS,
    tariffs.map((t) => {
      const { networkId, siteId, moreSiteIds, planId, providerId } = t.fields;
      const payer = planId ? plans.find((p) => p.id === planId)?.fields.name : providerId ? providers.find((p) => p.id === providerId)?.fields.name : 'guests';
      return tariffRow(t, {
        network: (networkId && network.get(networkId)) ?? null,
        sites: [siteId, ...(moreSiteIds ?? [])].flatMap((id) => (id ? (site.get(id) ?? []) : [])).join(', '),
        payer: payer ?? '',
      });
    }),
  );
}
