import type { CheckedRecord } from '@/core/formats/network-record';
import { sessionDoubts } from '@/core/power/session-doubts';
import type { MileRecord } from '@/core/records/record-schema';
import type { CheckedBill } from '@/core/tariff/checked-bill';
import { isId } from '@/core/units/id';
import { localDay } from '@/core/units/zoned';
import { deriveVisit, type Visit, visitState } from '@/core/visit/derive';
import type { StoredEvent } from '@/core/visit/event';
import { takenBackTo } from '@/core/visit/join-visits';
import { payloadProblem } from '@/core/visit/payloads';
import { type PrivateVisit, seesAll } from '@/core/visit/private';
import { type StopTimes, type StopVisit, stopTimes } from '@/core/visit/stop';
import { type MemberRow, membersOf } from '../accounts/members';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { checkedRecords } from '../formats/signed-check';
import { recordsWhere } from '../records/record-tables';
import { billCheck } from './bill-check';
import { eventsOfVisits } from './event-rows';
import { phoneClocks } from './phone-clocks';
import { stopOfVisit } from './stop-of-visit';

export type RecordNames = {
  site: (id: string | null) => string;
  network: (id: string | null) => string;
  stall: (id: string | null) => string;
  car: (id: string | null) => string;
  adapter: (id: string | null) => string;
  means: (id: string | null) => string;
  person: (id: string | null) => string;
};
export type VisitPageData = {
  visit: Visit;
  state: ReturnType<typeof visitState>;
  names: RecordNames;
  networkId: string | null;
  /** What of its sessions looks wrong beside what is on file of stall and car. */
  doubts: string[];
  stalls: Extract<MileRecord, { type: 'stall' }>[];
  /** What it should cost by the price on file, set against what was charged; `null`: at a place that is not known. */
  checked: CheckedBill | null;
  /** What networks recorded of its charges, as it came with their bills. */
  networkRecords: CheckedRecord[];
  /** Local day at the place, `2025-10-14`. */
  today: string;
  /** Everybody of the household, those who left too. */
  people: MemberRow[];
  maxSeq: number;
  /** Seconds by which phones' clocks were ahead of the server's, where it is worth telling. */
  clocks_s: number[];
  /** The stop this visit belongs to, when it is more than this visit. */
  stop: StopTimes | null;
  /** Recordings of the same visit that were taken into this one. */
  joinedFrom: string[];
};

async function privatePage(householdId: string, v: Visit): Promise<{ privateVisit: PrivateVisit }> {
  const [people, [car]] = await Promise.all([membersOf(householdId), v.carId ? recordsWhere(householdId, 'car', 'id', [v.carId]) : []]);
  return {
    privateVisit: {
      id: v.id,
      at: v.pulledInAt ?? v.lastEventAt,
      zone: v.zone,
      driver: people.find((p) => p.personId === v.driverId)?.name ?? 'somebody else',
      car: car?.fields.name ?? 'Car not named',
      delivered: v.delivered,
      paid: v.paid,
    },
  };
}

/** Names of records by id; what is not known is called so. */
export function recordNames(records: readonly MileRecord[], people: readonly MemberRow[]): RecordNames {
  const of = (type: MileRecord['type'], none: string, unnamed = none) => {
    const names = new Map(
      records.filter((r) => r.type === type).map((r) => [r.id, 'name' in r.fields ? r.fields.name : 'label' in r.fields ? r.fields.label : '']),
    );
    return (id: string | null) => (id ? (names.get(id) ?? none) : unnamed);
  };
  return {
    site: of('site', 'Unknown site', 'Somewhere new'),
    network: of('network', 'Unknown network', 'place not named yet'),
    stall: of('stall', ''),
    car: of('car', 'Car not named'),
    adapter: of('adapter', ''),
    means: of('means', ''),
    person: (id) => people.find((p) => p.personId === id)?.name ?? '',
  };
}

/** What the events of a visit can name, by the fields that do. */
const NAMED = { siteId: 'site', stallId: 'stall', carId: 'car', adapterId: 'adapter', meansId: 'means' } as const;
const NAMING = new RegExp(`"(${Object.keys(NAMED).join('|')})":"([0-9a-f-]{36})"`, 'g');

/** The records that a visit names, now or before a correction, with the networks of its sites: by their ids, not all there are. */
async function recordsNamed(householdId: string, events: readonly StoredEvent[], stop: readonly StopVisit[]): Promise<MileRecord[]> {
  const ids = new Map<keyof typeof NAMED, Set<string>>();
  const add = (field: keyof typeof NAMED, id: string) => {
    if (isId(id)) ids.set(field, (ids.get(field) ?? new Set()).add(id));
  };
  for (const e of events) for (const [, field, id] of JSON.stringify(e.payload).matchAll(NAMING)) add(field as keyof typeof NAMED, id as string);
  for (const v of stop) if (v.siteId) add('siteId', v.siteId);
  const found = (await Promise.all([...ids].map(([field, named]) => recordsWhere(householdId, NAMED[field], 'id', [...named])))).flat() as MileRecord[];
  const networks = new Set(found.flatMap((r) => (r.type === 'site' ? [r.fields.networkId] : [])));
  return [...found, ...(await recordsWhere(householdId, 'network', 'id', [...networks]))];
}

/** Everything the page of one visit shows; `null` for an id that is unknown in this household, whoever else may have it. */
export async function visitPage(who: Who, visitId: string): Promise<VisitPageData | { privateVisit: PrivateVisit } | null> {
  if (!isId(visitId)) return null;
  const { householdId } = who;
  const events = (await eventsOfVisits(householdId, [visitId])).get(visitId);
  if (!events) return null;
  const visit = deriveVisit(visitId, events, payloadProblem);
  if (!seesAll(visit, who.personId)) return privatePage(householdId, visit);
  const stop = await stopOfVisit(who, visitId);
  const records = await recordsNamed(householdId, events, stop);
  const site = records.find((r): r is MileRecord<'site'> => r.type === 'site' && r.id === visit.siteId);
  const stalls = records.filter((r): r is MileRecord<'stall'> => r.type === 'stall');
  const networks = records.filter((r): r is MileRecord<'network'> => r.type === 'network');
  const checked = site ? await billCheck(householdId, site, networks, visit, stalls) : null;
  const clocks_s = await phoneClocks(householdId, visitId);
  const people = await membersOf(householdId);
  return {
    visit,
    state: visitState(visit, now()),
    names: recordNames(records, people),
    networkId: site?.fields.networkId ?? null,
    doubts: sessionDoubts(visit, {
      stall: (id) => stalls.find((s) => s.id === id)?.fields,
      usableKWh: records.find((r): r is MileRecord<'car'> => r.type === 'car' && r.id === visit.carId)?.fields.usableKWh ?? null,
    }),
    stalls,
    checked,
    networkRecords: checkedRecords(visit),
    today: localDay(now(), visit.zone),
    people,
    maxSeq: Math.max(...events.map((e) => e.seq)),
    clocks_s,
    stop: stop.length > 1 ? stopTimes(stop) : null,
    joinedFrom: [...new Set(events.flatMap((e) => (isId(e.payload.joinedFrom) ? [e.payload.joinedFrom] : [])))].filter(
      (from) => takenBackTo('part', events, visitId, from).length > 0,
    ),
  };
}
