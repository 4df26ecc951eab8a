import Big from 'big.js';
import { addAll } from '../units/add-all';
import { finish, type Steps } from '../units/steps';
import { keptJson, NOT_KEPT } from './kept-json';
import {
  breach,
  checkObject,
  comesIn,
  type Findings,
  isObject,
  listIn,
  member,
  numberOf,
  objectIn,
  objectsIn,
  ocpiInstant,
  partyId,
  textOf,
  unitsOf,
} from './ocpi-check';
import { OCPI_CONNECTORS } from './ocpi-objects';
import { checkTariffOrder } from './ocpi-tariffs';
import { type Json, JsonNumber, type JsonObject, readJson } from './strict-json';

export type PeriodIn = {
  start: number;
  end: number;
  kWh: string | null;
  charging_min: number | null;
  parking_min: number | null;
  tariff: string | null;
  other: { type: string; volume: string }[];
};
export type BillIn = {
  pointer: string;
  id: string;
  /** UTC ms. */
  start: number;
  end: number;
  site: string;
  evse: string;
  connector: string | null;
  kWh: string;
  /** Negative: it takes money back. */
  amount: string;
  taxIn: boolean;
  currency: string;
  minutes: number;
  parking_min: number | null;
  /** The CDR that a credit takes back. */
  credits: string | null;
  tariffs: string[];
  signed: { method: string; natures: string[] } | null;
  periods: PeriodIn[];
};
/** Meter values as the network signed them. `key`: the meter's, where it came along. */
export type SignedIn = { method: string; key: string | null; values: { nature: string; signed: string }[] };
/** `notKept`: what is of the driver's card and contract, and is never kept. `records`: each as it came, by its bill's id, members that the standard does not know too, without that. */
export type CdrsIn = Findings & { bills: BillIn[]; notKept: string[]; records: Map<string, JsonObject> };

/** Sums that differ by more were not added up. */
const SLACK = { kWh: '0.01', ms: 60_000, money: '0.01' };
const HOUR_MS = 3_600_000;
const PRIVATE = ['contract_id', 'uid'] as const;

/** CDRs of OCPI 2.2.1 as bills with their periods. What does not add up is said and kept as it stands: it is evidence. */
export const cdrsIn = (document: Json): CdrsIn => finish(readingCdrs(document));

/** The same in steps. */
export function* readingCdrs(document: Json): Steps<CdrsIn> {
  const all: CdrsIn = { breaches: [], kept: [], bills: [], notKept: [], records: new Map() };
  const seen = new Set<string>();
  for (const { pointer, value } of unitsOf(document)) {
    yield;
    const own: Findings = { breaches: [], kept: [] };
    checkObject(value, 'CDR', pointer, own, isObject(value) && member(value, 'credit') === true);
    if (isObject(value)) {
      const [from, to] = [startOf(value), endOf(value)];
      if (from !== null && to !== null && to < from) breach(own, `${pointer}/end_date_time`, 'order');
      if (member(value, 'credit') === true && member(value, 'credit_reference_id') === undefined) breach(own, `${pointer}/credit_reference_id`, 'missing');
      for (const [i, t] of listIn(value, 'tariffs').entries()) if (isObject(t)) checkTariffOrder(t, `${pointer}/tariffs/${i}`, own);
    }
    const taken = isObject(value) && comesIn(seen, value, pointer, own);
    if (!taken) {
      addAll(all.breaches, own.breaches);
      continue;
    }
    saidOf(value, pointer, own);
    addAll(all.breaches, own.breaches);
    addAll(all.kept, own.kept);
    const token = objectIn(value, 'cdr_token');
    for (const name of PRIVATE) if (token && member(token, name) !== undefined) all.notKept.push(`${pointer}/cdr_token/${name}`);
    all.bills.push(billIn(value, pointer));
    all.records.set(partyId(value), withoutPrivate(value));
  }
  return all;
}

const startOf = (o: JsonObject) => ocpiInstant(textOf(o, 'start_date_time') ?? '');
const endOf = (o: JsonObject) => ocpiInstant(textOf(o, 'end_date_time') ?? '');
const big = (n: JsonNumber | null): Big => new Big(n?.text ?? 0);

/** The volumes of a kind over all periods; `null` where no period has any. */
function volumes(o: JsonObject, ...types: string[]): Big | null {
  const found = objectsIn(o, 'charging_periods').flatMap((p) => objectsIn(p, 'dimensions').filter((d) => types.includes(textOf(d, 'type') ?? '')));
  return found.length === 0 ? null : found.reduce((sum, d) => sum.plus(big(numberOf(d, 'volume'))), new Big(0));
}

/** Energy of a period: ENERGY, else what was imported. */
function energyOf(period: JsonObject): Big | null {
  const dims = objectsIn(period, 'dimensions');
  const of = (type: string) => dims.filter((d) => textOf(d, 'type') === type);
  const found = of('ENERGY').length > 0 ? of('ENERGY') : of('ENERGY_IMPORT');
  return found.length === 0 ? null : found.reduce((sum, d) => sum.plus(big(numberOf(d, 'volume'))), new Big(0));
}

/** What is said of a CDR that came in: sums that differ, periods outside or out of order, a credit with the wrong sign. */
function saidOf(o: JsonObject, pointer: string, into: Findings): void {
  const [from, to] = [startOf(o) as number, endOf(o) as number];
  const energies = objectsIn(o, 'charging_periods').flatMap((p) => energyOf(p) ?? []);
  if (
    energies.length > 0 &&
    energies
      .reduce((s, e) => s.plus(e), new Big(0))
      .minus(big(numberOf(o, 'total_energy')))
      .abs()
      .gt(SLACK.kWh)
  )
    breach(into, `${pointer}/total_energy`, 'sum');
  const timed = volumes(o, 'TIME', 'PARKING_TIME');
  // By multiplying alone, which is exact: a third of an hour has no last decimal.
  const lasted = timed?.times(HOUR_MS) ?? new Big(to - from);
  if (
    lasted
      .minus(big(numberOf(o, 'total_time')).times(HOUR_MS))
      .abs()
      .gt(SLACK.ms)
  )
    breach(into, `${pointer}/total_time`, 'sum');
  const parts = ['total_fixed_cost', 'total_energy_cost', 'total_time_cost', 'total_parking_cost', 'total_reservation_cost'].flatMap(
    (n) => objectIn(o, n) ?? [],
  );
  const total = objectIn(o, 'total_cost') as JsonObject;
  const sum = parts.reduce((s, p) => s.plus(big(numberOf(p, 'excl_vat'))), new Big(0));
  if (
    parts.length > 0 &&
    sum
      .minus(big(numberOf(total, 'excl_vat')))
      .abs()
      .gt(SLACK.money)
  )
    breach(into, `${pointer}/total_cost/excl_vat`, 'sum');
  let latest = Number.NEGATIVE_INFINITY;
  let unsorted = false;
  for (const [i, p] of listIn(o, 'charging_periods').entries()) {
    const start = isObject(p) ? startOf(p) : null;
    if (start === null) continue;
    if (start < from || start > to) breach(into, `${pointer}/charging_periods/${i}/start_date_time`, 'outside');
    if (start < latest && !unsorted) {
      breach(into, `${pointer}/charging_periods/${i}/start_date_time`, 'unsorted');
      unsorted = true;
    }
    latest = start;
  }
  if (member(o, 'credit') === true && big(amountOf(total).number).gt(0)) breach(into, `${pointer}/total_cost/${amountOf(total).name}`, 'credit_sign');
}

/** What is paid: with its tax where that is said. */
function amountOf(total: JsonObject): { number: JsonNumber | null; name: 'incl_vat' | 'excl_vat' } {
  const incl = numberOf(total, 'incl_vat');
  return incl ? { number: incl, name: 'incl_vat' } : { number: numberOf(total, 'excl_vat'), name: 'excl_vat' };
}

const minutesOf = (hours: Big | JsonNumber | null): number | null =>
  hours === null ? null : Number((hours instanceof JsonNumber ? big(hours) : hours).times(60).toString());

function billIn(o: JsonObject, pointer: string): BillIn {
  const [start, end] = [startOf(o) as number, endOf(o) as number];
  const place = objectIn(o, 'cdr_location') as JsonObject;
  const { number: amount, name } = amountOf(objectIn(o, 'total_cost') as JsonObject);
  const credit = member(o, 'credit') === true;
  const periods = objectsIn(o, 'charging_periods')
    .map((p) => ({ p, at: startOf(p) as number }))
    .sort((a, b) => a.at - b.at);
  const signed = objectIn(o, 'signed_data');
  return {
    pointer,
    id: partyId(o),
    start,
    end,
    site: textOf(place, 'name') ?? textOf(place, 'address') ?? '',
    evse: textOf(place, 'evse_id') ?? '',
    connector: (OCPI_CONNECTORS[(textOf(place, 'connector_standard') ?? '') as keyof typeof OCPI_CONNECTORS] as string | undefined) ?? null,
    kWh: numberOf(o, 'total_energy')?.text ?? '0',
    amount: credit && big(amount).gt(0) ? big(amount).times(-1).toFixed() : (amount?.text ?? '0'),
    taxIn: name === 'incl_vat',
    currency: textOf(o, 'currency') ?? '',
    minutes: minutesOf(numberOf(o, 'total_time')) ?? 0,
    parking_min: minutesOf(numberOf(o, 'total_parking_time')),
    credits: credit ? `${textOf(o, 'country_code')}*${textOf(o, 'party_id')}*${textOf(o, 'credit_reference_id')}` : null,
    tariffs: objectsIn(o, 'tariffs').map(partyId),
    signed: signed && { method: textOf(signed, 'encoding_method') ?? '', natures: objectsIn(signed, 'signed_values').map((v) => textOf(v, 'nature') ?? '') },
    periods: periods.map(({ p, at }, i) => periodIn(p, at, periods[i + 1]?.at ?? end)),
  };
}

/** A record without what is of the driver's card and contract: in its token, and in whatever text a network adds, save what is signed, which holds only whole. */
function withoutPrivate(o: JsonObject): JsonObject {
  return new Map(
    [...o].map(([name, v]): [string, Json] => [name, name === 'cdr_token' && isObject(v) ? tokenKept(v) : name === 'signed_data' ? v : keptJson(v)]),
  );
}
const tokenKept = (token: JsonObject): JsonObject =>
  new Map([...token].map(([k, v]): [string, Json] => [k, (PRIVATE as readonly string[]).includes(k) ? NOT_KEPT : keptJson(v)]));

/** What of a record was signed by its meter; `null`: nothing. */
function signedIn(o: JsonObject): SignedIn | null {
  const signed = objectIn(o, 'signed_data');
  return (
    signed && {
      method: textOf(signed, 'encoding_method') ?? '',
      key: textOf(signed, 'public_key'),
      values: objectsIn(signed, 'signed_values').map((v) => ({ nature: textOf(v, 'nature') ?? '', signed: textOf(v, 'signed_data') ?? '' })),
    }
  );
}

/** A record that was kept, read again, with what is said of it; `null` where it is none. @param document its JSON text */
export function keptCdr(document: string): { bill: BillIn; signed: SignedIn | null; breaches: Findings['breaches'] } | null {
  const read = readJson(new TextEncoder().encode(document));
  if (!read.ok) return null;
  const { bills, breaches, records } = cdrsIn(read.value);
  const [bill] = bills;
  const record = bill && records.get(bill.id);
  return bill && record && bills.length === 1 ? { bill, signed: signedIn(record), breaches } : null;
}

/** Dimensions with a place of their own; all others are kept beside. */
const OWN: ReadonlySet<string> = new Set(['ENERGY', 'TIME', 'PARKING_TIME']);
function periodIn(p: JsonObject, start: number, end: number): PeriodIn {
  const dims = objectsIn(p, 'dimensions');
  const hours = (type: string) => {
    const found = dims.filter((d) => textOf(d, 'type') === type);
    return found.length === 0 ? null : found.reduce((s, d) => s.plus(big(numberOf(d, 'volume'))), new Big(0));
  };
  const energy = energyOf(p);
  const imported = hours('ENERGY') === null;
  return {
    start,
    end,
    kWh: energy?.toFixed() ?? null,
    charging_min: minutesOf(hours('TIME')),
    parking_min: minutesOf(hours('PARKING_TIME')),
    tariff: textOf(p, 'tariff_id'),
    other: dims.flatMap((d) => {
      const type = textOf(d, 'type') ?? '';
      return OWN.has(type) || (imported && type === 'ENERGY_IMPORT') ? [] : [{ type, volume: numberOf(d, 'volume')?.text ?? '0' }];
    }),
  };
}
