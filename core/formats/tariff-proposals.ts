import { type OcpiTariff, ocpiTariff } from '../records/ocpi-tariff';
import { oneLineOfObject } from '../tariff/plain-price';
import { ownWords } from '../units/own-words';
import { finish, type Steps } from '../units/steps';
import { localDay } from '../units/zoned';
import { BREACH_WORDS } from './breach-words';
import { keptJson } from './kept-json';
import { unitsOf } from './ocpi-check';
import { readingTariffs } from './ocpi-tariffs';
import { plainJson } from './plain-json';
import type { Json } from './strict-json';

/** A tariff of a file as it may be kept as a price. */
export type TariffProposal = {
  pointer: string;
  /** What the network calls it, else its id there. */
  name: string;
  /** The object as it stands in the file, fields that the standard does not know too. */
  tariff: OcpiTariff;
  perKWh: string | null;
  startFee: string;
  /** First and last day by the clock there; `null` where the file does not say. */
  from: string | null;
  until: string | null;
};
export type TariffProposals = { proposals: TariffProposal[]; leftOut: { pointer: string; reason: string }[] };

/**
 * The Tariffs of an OCPI 2.2.1 document as prices to keep. One that breaks the standard is left out, and one that the price engine could not hold too: with the place of what is
 * wrong, the first of each.
 * @param zone IANA name, of the days
 */
export const tariffProposals = (document: Json, zone: string): TariffProposals => finish(proposingTariffs(document, zone));

/** The same in steps. */
export function* proposingTariffs(document: Json, zone: string): Steps<TariffProposals> {
  const { breaches, tariffs } = yield* readingTariffs(document);
  const leftOut = breaches.filter((b) => b.refuses).map((b) => ({ pointer: b.pointer, reason: BREACH_WORDS[b.code] }));
  const objects = new Map(unitsOf(document).map((u) => [u.pointer, u.value]));
  const proposals: TariffProposal[] = [];
  for (const { pointer, from, until } of tariffs) {
    yield;
    const read = ocpiTariff.safeParse(said(plainJson(keptJson(objects.get(pointer) ?? null))), { error: ownWords });
    if (!read.success) {
      const { path = [], message = '' } = read.error.issues[0] ?? {};
      leftOut.push({ pointer: [pointer, ...path].join('/'), reason: message });
      continue;
    }
    const tariff = read.data;
    const name = tariff.tariff_alt_text?.map((t) => t.text.trim()).find((t) => t !== '') ?? tariff.id;
    proposals.push({
      pointer,
      name,
      tariff,
      ...oneLineOfObject(tariff, null),
      from: from === null ? null : localDay(from, zone),
      // The standard's end is the moment from which it holds no more.
      until: until === null ? null : localDay(until - 1, zone),
    });
  }
  return { proposals, leftOut };
}

/** Without members that are null: to the standard they are not there. */
function said(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(said);
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).flatMap(([key, member]) => (member === null ? [] : [[key, said(member)]])));
}
