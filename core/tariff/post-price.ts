import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { type MileRecord, RECORDS, type RecordItem } from '../records/record-schema';

/** Whether a price says no more than its one line: so much per kWh and per start. What is behind it, if anything, is one element of these without conditions. */
export function isOneLine({ tariff, extra }: { tariff: OcpiTariff | null; extra: ExtraPricing | null }): boolean {
  if (extra && Object.keys(extra).length > 0) return false;
  if (!tariff) return true;
  const [first, ...more] = tariff.elements;
  if (!first || more.length > 0 || Object.keys(first.restrictions ?? {}).length > 0 || tariff.min_price || tariff.max_price) return false;
  return first.price_components.every((c) => c.type === 'FLAT' || (c.type === 'ENERGY' && c.step_size <= 1) || c.price === 0);
}

/** What a post said in one line, as it was typed: decimal strings with a point, tax in; no start fee is ''. */
export type PostSaid = { currency: string; perKWh: string; startFee: string };

/**
 * What a post said as the price of its site for guests from a day on. One of the same day is mended; what held before stays for the visits of its days.
 * @param id of a new one @param day ISO date, local to the site
 * @returns `null` where it is no price
 */
export function priceFromPost(
  records: readonly MileRecord<'tariff'>[],
  place: { siteId: string; networkId: string },
  said: PostSaid,
  day: string,
  id: string,
): RecordItem<'tariff'> | null {
  const same = records.find(
    ({ archived, fields: t }) =>
      !archived &&
      t.siteId === place.siteId &&
      t.moreSiteIds.length === 0 &&
      t.planId === null &&
      t.providerId === null &&
      t.validFrom === day &&
      // One with more to it was typed with care at the desk: it stays, and the newer one stands beside it.
      isOneLine(t),
  );
  const line = { currency: said.currency, perKWh: said.perKWh, startFee: said.startFee || '0', tariff: null, extra: null };
  const fields = RECORDS.tariff.safeParse(same ? { ...same.fields, ...line } : { ...place, ...line, validFrom: day });
  return fields.success ? { type: 'tariff', id: same?.id ?? id, baseRev: same?.rev ?? 0, archived: false, fields: fields.data } : null;
}
