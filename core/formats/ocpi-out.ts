import Big from 'big.js';
import { getCountryForTimezone } from 'countries-and-timezones';
import { alpha2ToAlpha3 } from 'i18n-iso-countries';
import type { RecordFields } from '../records/record-schema';
import { firstLetters } from '../units/first-letters';
import { chargingEnd, meansOf } from '../visit/attempt-times';
import { attemptsNamed, forCharging } from '../visit/billed';
import { sessionEnergy } from '../visit/delivered';
import type { TimedAttempt, Visit } from '../visit/derive';
import { fold } from './match-sessions';
import { OCPI_CONNECTORS } from './ocpi-objects';
import { hoursText } from './opening-hours';
import { documentMembers } from './place-document';
import { readJson } from './strict-json';

type Outlet = RecordFields<'stall'>['outlets'][number];
export type SiteOut = {
  id: string;
  archived: boolean;
  network: string | null;
  fields: RecordFields<'site'>;
  stalls: readonly { id: string; archived: boolean; fields: RecordFields<'stall'> }[];
};
/** Something that could not be said in the standard, and why. `attempt`: of a visit. */
export type LeftOut = {
  id: string;
  attempt?: number;
  why:
    | 'put_away'
    | 'no_position'
    | 'no_stall'
    | 'connector'
    | 'day_only'
    | 'still_charging'
    | 'no_energy'
    | 'no_power'
    | 'no_attempt'
    | 'no_cost'
    | 'currencies';
};
export type OcpiOut = { data: object[]; leftOut: LeftOut[] };

/** The party under which a household's own record is written: no operator is registered by it. */
const PARTY = 'MLE';
const NOT_KNOWN = 'not known';
const PLUGS = new Map<string, string>(
  Object.entries(OCPI_CONNECTORS)
    .reverse()
    .map(([theirs, ours]) => [ours, theirs]),
);
const iso = (ms: number): string => new Date(ms).toISOString();
/** ISO 3166 codes of a zone's country; the codes for nobody's where it has none. */
export function countryOf(zone: string): { two: string; three: string } {
  const two = getCountryForTimezone(zone)?.id;
  const three = two && alpha2ToAlpha3(two);
  return two && three ? { two, three } : { two: 'ZZ', three: 'ZZZ' };
}
/** Five decimals, as the standard writes degrees. */
const degrees = (n: number): string => new Big(n).toFixed(5);
const evseUid = (s: SiteOut['stalls'][number]): string => firstLetters(s.fields.evseUids[0] ?? s.id, 36);
const standardOf = (o: Outlet): string | undefined => PLUGS.get(o.connector);
const isDc = (o: Outlet): boolean => ['CHADEMO', 'GBT_DC', 'IEC_62196_T1_COMBO', 'IEC_62196_T2_COMBO'].includes(standardOf(o) ?? '');
const powerType = (o: Outlet): string => (isDc(o) ? 'DC' : o.phases === 1 ? 'AC_1_PHASE' : 'AC_3_PHASE');

/** Of these a site here knows nothing; the Location that it came from may. */
const OF_THE_FILE = ['address', 'city', 'postal_code'] as const;
const told = (s: SiteOut): Partial<Record<(typeof OF_THE_FILE)[number], string>> => {
  const file = documentMembers(s.fields.fromFile, 'OCPI');
  return Object.fromEntries(OF_THE_FILE.flatMap((name) => (typeof file[name] === 'string' ? [[name, file[name]]] : [])));
};
/** Members of a location that it shares with a CDR's. What nobody noted is said to be not known, and named in the extension. */
const addressOf = (s: SiteOut) => ({
  name: firstLetters(s.fields.name, 255),
  address: firstLetters(s.fields.entrance ?? NOT_KNOWN, 45),
  city: NOT_KNOWN,
  ...told(s),
  country: countryOf(s.fields.zone).three,
  coordinates: { latitude: degrees(s.fields.latitude as number), longitude: degrees(s.fields.longitude as number) },
});
const notKnown = (s: SiteOut): string[] =>
  ['city', 'postal_code', ...(s.fields.entrance === null ? ['address'] : [])].filter((name) => !Object.hasOwn(told(s), name));
/** A network, with what the file says of it where it is the same. */
const operatorOf = (network: string, theirs: Record<string, unknown> | undefined): object => ({
  ...(typeof theirs?.name === 'string' && fold(theirs.name) === fold(network) ? theirs : {}),
  name: firstLetters(network, 100),
});
/** Its opening times as its file has them, where they are still those that are noted. */
const openingTimes = (s: SiteOut, file: Readonly<Record<string, unknown>>): object => {
  const read = file.opening_times ? readJson(new TextEncoder().encode(JSON.stringify(file.opening_times))) : null;
  const same = read?.ok && read.value instanceof Map && hoursText(read.value) === s.fields.openingHours;
  return { opening_times: same ? file.opening_times : undefined };
};
const objects = (v: unknown): Record<string, unknown>[] =>
  Array.isArray(v) ? v.filter((x): x is Record<string, unknown> => typeof x === 'object' && x !== null && !Array.isArray(x)) : [];

/**
 * Sites as Locations of OCPI 2.2.1 (from memory), what was put away left out. A site without a position cannot be said, nor a plug that the standard does not name; the state of a stall was seen once, so it is
 * UNKNOWN here. What the Location that a site came from says beyond it goes out as it came.
 * @param at UTC ms: when this was written
 */
export function locationsOut(sites: readonly SiteOut[], at: number): OcpiOut {
  const leftOut: LeftOut[] = [];
  const data = sites.flatMap((s) => {
    const why = s.archived ? 'put_away' : s.fields.latitude === null || s.fields.longitude === null ? 'no_position' : null;
    if (why) {
      leftOut.push({ id: s.id, why });
      return [];
    }
    const file = documentMembers(s.fields.fromFile, 'OCPI');
    const evses = s.stalls.flatMap((stall) => {
      if (stall.archived) {
        leftOut.push({ id: stall.id, why: 'put_away' });
        return [];
      }
      const connectors = stall.fields.outlets.flatMap((o, i) => connectorOut(o, i, at));
      const theirs = objects(file.evses).find((e) => typeof e.uid === 'string' && stall.fields.evseUids.includes(e.uid));
      const theirConnectors = objects(theirs?.connectors);
      if (connectors.length < stall.fields.outlets.length) leftOut.push({ id: stall.id, why: 'connector' });
      const evseId = stall.fields.evseUids.find((uid) => uid.includes('*'));
      return connectors.length === 0
        ? []
        : [
            {
              ...theirs,
              uid: evseUid(stall),
              ...(evseId ? { evse_id: firstLetters(evseId, 48) } : {}),
              status: stall.fields.state?.is === 'not yet open' ? 'PLANNED' : 'UNKNOWN',
              connectors: connectors.map((c, i) => (theirConnectors.length === connectors.length ? { ...theirConnectors[i], ...c } : c)),
              ...(stall.fields.name.length <= 16 ? { physical_reference: stall.fields.name } : {}),
              last_updated: iso(at),
              x_name: stall.fields.name,
            },
          ];
    });
    return [
      {
        ...file,
        country_code: countryOf(s.fields.zone).two,
        party_id: PARTY,
        id: s.id,
        publish: false,
        ...addressOf(s),
        ...openingTimes(s, file),
        ...(s.network ? { operator: operatorOf(s.network, objects([file.operator])[0]) } : {}),
        time_zone: s.fields.zone,
        evses: evses.length > 0 ? evses : undefined,
        last_updated: iso(at),
        x_not_known: notKnown(s),
      },
    ];
  });
  return { data, leftOut };
}

function connectorOut(o: Outlet, i: number, at: number): object[] {
  const standard = standardOf(o);
  if (!standard) return [];
  const W = Math.round(Number(o.ratedKW) * 1000);
  const type = powerType(o);
  // Volts and amps that nobody noted are the usual ones of such a plug, and said to be.
  const V = Number(o.maxV ?? (type === 'DC' ? 920 : 230));
  const A = Number(o.maxA ?? Math.max(1, Math.round(W / V / (type === 'AC_3_PHASE' ? 3 : 1))));
  return [
    {
      id: String(i + 1),
      standard,
      format: o.cable === 'own cable' || (o.cable === null && !isDc(o)) ? 'SOCKET' : 'CABLE',
      power_type: type,
      max_voltage: Math.round(V),
      max_amperage: Math.round(A),
      max_electric_power: W,
      last_updated: iso(at),
      ...(o.maxV === null || o.maxA === null
        ? { x_not_known: [...(o.maxV === null ? ['max_voltage'] : []), ...(o.maxA === null ? ['max_amperage'] : [])] }
        : {}),
    },
  ];
}

type SessionTold = { a: TimedAttempt; site: SiteOut; stall: SiteOut['stalls'][number]; plug: number; start: number; end: number | null; kWh: string };
type SiteOf = (stallId: string | null, siteId: string | null) => SiteOut | undefined;

/** What an attempt tells of a session, or why that cannot be said. */
function sessionTold(v: Visit, a: TimedAttempt, siteOf: SiteOf): SessionTold | LeftOut['why'] {
  if (!a.proof) return 'no_power';
  if (a.proof.precision === 'day') return 'day_only';
  const energy = sessionEnergy(a, v.billed);
  if (!energy || energy.atLeast || new Big(energy.value).lte(0)) return 'no_energy';
  const site = siteOf(a.stallId, v.siteId);
  const stall = site?.stalls.find((s) => s.id === a.stallId);
  if (!site || !stall) return 'no_stall';
  if (site.fields.latitude === null || site.fields.longitude === null) return 'no_position';
  const named = stall.fields.outlets.findIndex((o) => o.connector === a.connectorId);
  const plug = Math.max(0, named);
  if (!standardOf(stall.fields.outlets[plug] as Outlet)) return 'connector';
  const end = chargingEnd(a) ?? a.ended?.at;
  return {
    a,
    site,
    stall,
    plug,
    start: a.proof.t,
    end: end && end.precision !== 'day' ? Math.max(end.t, a.proof.t) : null,
    kWh: new Big(energy.value).toFixed(),
  };
}

const HOW: Readonly<Record<string, string>> = {
  app: 'COMMAND',
  web: 'COMMAND',
  remote: 'COMMAND',
  in_app_account: 'COMMAND',
  rfid: 'WHITELIST',
  autocharge: 'WHITELIST',
  plug_and_charge: 'WHITELIST',
};
const common = (v: Visit, { a, site, start }: SessionTold) => {
  const means = meansOf(a)?.meansKind;
  return {
    country_code: countryOf(site.fields.zone).two,
    party_id: PARTY,
    id: a.opened.id,
    start_date_time: iso(start),
    // No card's or contract's number is ever kept.
    cdr_token: { country_code: countryOf(site.fields.zone).two, party_id: PARTY, uid: NOT_KNOWN, type: 'OTHER', contract_id: NOT_KNOWN },
    auth_method: HOW[means ?? ''] ?? 'AUTH_REQUEST',
    last_updated: iso(v.lastEventAt),
    x_visit: v.id,
    x_attempt: a.n,
    ...(means ? { x_means: means } : {}),
  };
};
const number = (decimal: string): number => Number(new Big(decimal).toFixed(6));

/** Charges as Sessions of OCPI 2.2.1 (from memory); attempts that gave no power are told beside them, as the standard cannot say them. */
export function sessionsOut(visits: readonly Visit[], siteOf: SiteOf, currency: string): OcpiOut {
  return eachAttempt(visits, siteOf, (v, told) => {
    const { stall, plug, site, end, kWh } = told;
    const cost = costOf(v, told.a);
    return {
      ...common(v, told),
      ...(end === null ? {} : { end_date_time: iso(end) }),
      kwh: number(kWh),
      location_id: site.id,
      evse_uid: evseUid(stall),
      connector_id: String(plug + 1),
      currency: typeof cost === 'string' ? currency : cost.currency,
      ...(typeof cost === 'string' ? {} : { total_cost: cost.price }),
      status: end === null ? 'ACTIVE' : 'COMPLETED',
    };
  });
}

/** Charges that were billed as CDRs of OCPI 2.2.1 (from memory). */
export function cdrsOut(visits: readonly Visit[], siteOf: SiteOf): OcpiOut {
  return eachAttempt(visits, siteOf, (v, told) => {
    const { site, stall, plug, start, end, kWh } = told;
    if (end === null) return 'still_charging';
    const cost = costOf(v, told.a);
    if (typeof cost === 'string') return cost;
    const outlet = stall.fields.outlets[plug] as Outlet;
    const hours = number(new Big(end - start).div(3_600_000).toFixed(6));
    return {
      ...common(v, told),
      end_date_time: iso(end),
      cdr_location: {
        id: firstLetters(site.id, 36),
        ...addressOf(site),
        evse_uid: evseUid(stall),
        evse_id: firstLetters(stall.fields.evseUids.find((uid) => uid.includes('*')) ?? stall.fields.name, 48),
        connector_id: String(plug + 1),
        connector_standard: standardOf(outlet),
        connector_format: outlet.cable === 'own cable' || (outlet.cable === null && !isDc(outlet)) ? 'SOCKET' : 'CABLE',
        connector_power_type: powerType(outlet),
      },
      currency: cost.currency,
      charging_periods: [
        {
          start_date_time: iso(start),
          dimensions: [
            { type: 'ENERGY', volume: number(kWh) },
            { type: 'TIME', volume: hours },
          ],
        },
      ],
      total_cost: cost.price,
      total_energy: number(kWh),
      total_time: hours,
      x_not_known: [...notKnown(site), 'cdr_token', ...(cost.taxKnown ? [] : ['tax'])],
    };
  });
}

function eachAttempt(visits: readonly Visit[], siteOf: SiteOf, say: (v: Visit, told: SessionTold) => object | LeftOut['why']): OcpiOut {
  const out: OcpiOut = { data: [], leftOut: [] };
  for (const v of visits) {
    if (v.withdrawn) continue;
    // What a receipt alone tells has no start that could be said.
    if (v.attempts.length === 0) out.leftOut.push({ id: v.id, why: 'no_attempt' });
    for (const a of v.attempts) {
      const told = sessionTold(v, a, siteOf);
      const said = typeof told === 'string' ? told : say(v, told);
      if (typeof said === 'string') out.leftOut.push({ id: v.id, attempt: a.n, why: said });
      else out.data.push(said);
    }
  }
  return out;
}

/** What an attempt cost by the bills for it alone, or by all of them where it was the visit's only session; refunds taken off. */
function costOf(v: Visit, a: TimedAttempt): { currency: string; price: { excl_vat: number; incl_vat: number }; taxKnown: boolean } | 'no_cost' | 'currencies' {
  const only = v.attempts.filter((x) => x.proof).length === 1;
  const bills = forCharging(v.bills).filter((b) => {
    const named = attemptsNamed(b.payload.sessions, v.attempts, v.line);
    return (named.length === 0 && only) || (named.length === 1 && named[0] === a.n);
  });
  const [one] = bills;
  if (!one) return 'no_cost';
  if (bills.some((b) => b.payload.currency !== one.payload.currency)) return 'currencies';
  const sign = (b: (typeof bills)[number], amount: string) => new Big(amount).times(b.payload.state === 'refunded' ? -1 : 1);
  const total = bills.reduce((sum, b) => sum.plus(sign(b, b.payload.amount)), new Big(0));
  if (total.lt(0)) return 'no_cost';
  const taxKnown = bills.every((b) => b.payload.tax !== undefined);
  const tax = taxKnown ? bills.reduce((sum, b) => sum.plus(sign(b, b.payload.tax as string)), new Big(0)) : new Big(0);
  return { currency: one.payload.currency, price: { excl_vat: number(total.minus(tax).toFixed()), incl_vat: number(total.toFixed()) }, taxKnown };
}
