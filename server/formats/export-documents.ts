import { geojsonOut } from '@/core/formats/geojson';
import { cdrsOut, locationsOut, type OcpiOut, type SiteOut, sessionsOut } from '@/core/formats/ocpi-out';
import { documentMembers } from '@/core/formats/place-document';
import { byId } from '@/core/units/by-id';
import { grouped } from '@/core/units/grouped';
import { deriveVisit, type Visit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { recordsOf } from '../records/record-tables';
import { eventsOfVisits } from '../visits/event-rows';
import { visitPortions } from './visit-portions';

/** What goes out as one JSON document of a standard, by the name of its file. */
export const DOCUMENTS = {
  'ocpi-cdrs.json': 'application/json',
  'ocpi-sessions.json': 'application/json',
  'ocpi-locations.json': 'application/json',
  'sites.geojson': 'application/geo+json',
} as const;
export type DocumentName = keyof typeof DOCUMENTS;
export const DOCUMENT_NAMES = Object.keys(DOCUMENTS) as DocumentName[];

/** Sites in the order of their ids: the same ledger is the same file. */
async function sitesOut(householdId: string): Promise<SiteOut[]> {
  const [sites, networks, stalls] = await Promise.all([recordsOf(householdId, 'site'), recordsOf(householdId, 'network'), recordsOf(householdId, 'stall')]);
  const called = new Map(networks.map((n) => [n.id, n.fields.name]));
  const ofSite = grouped(byId(stalls), (s) => s.fields.siteId);
  return byId(sites).map(({ id, archived, fields }) => ({ id, archived, fields, network: called.get(fields.networkId) ?? null, stalls: ofSite.get(id) ?? [] }));
}

/** A response as OCPI has it; what could not be said stands in its extension, with why. */
const response = ({ data, leftOut }: OcpiOut): object => ({
  data,
  status_code: 1000,
  timestamp: new Date(now()).toISOString(),
  x_mile_ledger: { left_out: leftOut },
});

async function visitsSeen(who: Who): Promise<Visit[]> {
  const out: Visit[] = [];
  for await (const ids of visitPortions(who)) {
    const events = await eventsOfVisits(who.householdId, ids);
    for (const id of ids) {
      const own = events.get(id);
      if (own) out.push(deriveVisit(id, own, payloadProblem));
    }
  }
  return out;
}

/** A document of the household's places or of the visits that this person sees. */
export async function documentOf(who: Who & { currency: string }, name: DocumentName): Promise<object> {
  const sites = await sitesOut(who.householdId);
  if (name === 'sites.geojson') {
    // It says what there is: a site that was put away is in the whole ledger and in the sheet of sites.
    const inUse = sites.filter((s) => !s.archived);
    return geojsonOut(
      inUse.map(({ id, network, fields }) => {
        const { latitude, longitude, networkId: _, photos: __, fromFile: ___, ...more } = fields;
        return { id, latitude, longitude, ...more, network };
      }),
      new Map(inUse.map(({ id, fields }) => [id, documentMembers(fields.fromFile, 'GeoJSON')])),
    );
  }
  if (name === 'ocpi-locations.json') return response(locationsOut(sites, now()));
  const byStall = new Map(sites.flatMap((s) => s.stalls.map((stall) => [stall.id, s] as const)));
  const siteById = new Map(sites.map((s) => [s.id, s]));
  // A stall tells where it stands, whatever the arrival says.
  const siteOf = (stallId: string | null, siteId: string | null) => (stallId ? byStall.get(stallId) : undefined) ?? (siteId ? siteById.get(siteId) : undefined);
  const visits = await visitsSeen(who);
  return response(name === 'ocpi-cdrs.json' ? cdrsOut(visits, siteOf) : sessionsOut(visits, siteOf, who.currency));
}
