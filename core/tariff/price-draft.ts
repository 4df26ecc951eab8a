import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { type MileRecord, RECORDS, type RecordItem } from '../records/record-schema';
import { ownWords } from '../units/own-words';
import { NO_PRICE, objectOfPlain, oneLineOf, oneLineOfObject, type PlainPrice, plainOfObject, plainPrice, saysPrice } from './plain-price';

/** A tariff as it is kept: the object of the standard, and what stands beside it. */
export type PriceObject = { tariff: OcpiTariff; extra: ExtraPricing | null };

/** For whom a price is that is neither a plan's nor a provider's. */
export const GUESTS = 'guests';
/**
 * A price while it is typed. `raw`: one that the plain choices cannot say, changed as an object. `forWhom`: the id of a plan or provider, or `GUESTS`.
 * `siteIds` counts where it is of some sites. Days are ISO dates, empty is none.
 */
export type PriceDraft = {
  plain: PlainPrice;
  raw: PriceObject | null;
  forWhom: string;
  where: 'site' | 'network' | 'sites';
  siteIds: string[];
  currency: string;
  from: string;
  until: string;
  note: string;
};

/** What an object says, as plain choices where they can say it. */
function choicesOfObject(of: PriceObject): Pick<PriceDraft, 'plain' | 'raw'> {
  const plain = plainOfObject(of.tariff, of.extra);
  return plain ? { plain, raw: null } : { plain: NO_PRICE, raw: of };
}
/** The choices of a price on file: what the plain ones cannot say is taken as an object. */
const choicesOf = (t: Said): Pick<PriceDraft, 'plain' | 'raw'> =>
  t.tariff
    ? choicesOfObject({ tariff: t.tariff, extra: t.extra ?? null })
    : { raw: null, plain: { ...NO_PRICE, perKWh: t.perKWh ?? '', startFee: Number(t.startFee) > 0 ? t.startFee : '' } };

type Said = Pick<MileRecord<'tariff'>['fields'], 'currency' | 'perKWh' | 'startFee' | 'tariff' | 'extra'>;
/** A price of another place that one can start from, with where and since when it is. */
export type OtherPrice = Said & { name: string };
/** More nobody looks through. */
const MOST_OTHERS = 40;
/** The newest prices on file, to start from. @param placeOf what a network and a site are called, `null`: all of the network */
export function otherPrices(records: readonly MileRecord<'tariff'>[], placeOf: (networkId: string, siteId: string | null) => string): OtherPrice[] {
  return records
    .filter((t) => !t.archived)
    .sort((a, b) => (a.fields.validFrom < b.fields.validFrom ? 1 : a.fields.validFrom > b.fields.validFrom ? -1 : a.id < b.id ? -1 : 1))
    .slice(0, MOST_OTHERS)
    .map(({ fields: { networkId, siteId, validFrom, currency, perKWh, startFee, tariff, extra } }) => ({
      name: `${placeOf(networkId, siteId)}, ${validFrom}`,
      currency,
      perKWh,
      startFee,
      tariff: tariff ?? null,
      extra: extra ?? null,
    }));
}
/** An object as that of another price: under its id, and without the days on which it held before. */
function anew({ tariff, extra }: PriceObject, id: string): PriceObject {
  const { start_date_time: _, end_date_time: __, ...rest } = tariff;
  return { tariff: { ...rest, id }, extra };
}
/** What is typed when another price, or an object that was pasted in, takes its place. @param id of the price that is typed */
export function saidBy(of: OtherPrice | PriceObject, id: string): Partial<PriceDraft> {
  const choices = 'name' in of ? choicesOf(of) : choicesOfObject(of);
  const currency = 'name' in of ? of.currency : of.tariff.currency;
  // One that is pasted in says itself when it holds.
  const raw = choices.raw && ('name' in of ? anew(choices.raw, id) : { ...choices.raw, tariff: { ...choices.raw.tariff, id } });
  return { currency, ...choices, raw };
}

/**
 * What a form of a price begins with.
 * @param record the price that is mended; `null`: a new one @param of where it is typed: the site, what is paid in there, and today's date there
 */
export function draftOf(record: MileRecord<'tariff'> | null, of: { siteId: string; currency: string; today: string }): PriceDraft {
  const none = { plain: NO_PRICE, raw: null, forWhom: GUESTS, where: 'site' as const, siteIds: [of.siteId], currency: of.currency };
  if (!record) return { ...none, from: of.today, until: '', note: '' };
  const t = record.fields;
  const sites = t.siteId === null ? null : [t.siteId, ...(t.moreSiteIds ?? [])];
  return {
    ...choicesOf(t),
    forWhom: t.planId ?? t.providerId ?? GUESTS,
    where: sites === null ? 'network' : sites.length > 1 || sites[0] !== of.siteId ? 'sites' : 'site',
    siteIds: sites ?? [of.siteId],
    currency: t.currency,
    from: t.validFrom,
    until: t.validUntil ?? '',
    note: t.note ?? '',
  };
}

/** The same price from a day on: what a post says now begins with what it said before. @param id of the new one */
export function draftFrom(record: MileRecord<'tariff'>, of: { siteId: string; currency: string; today: string }, id: string): PriceDraft {
  const begun = draftOf(record, of);
  return { ...begun, raw: begun.raw && anew(begun.raw, id), from: of.today, until: '', note: '' };
}

/** The object behind what is typed; `null` while it says no price. @param id of the record */
export function objectOfDraft(d: PriceDraft, id: string, today: string): PriceObject | null {
  if (d.raw) return d.raw;
  const typed = plainPrice.safeParse(d.plain);
  return typed.success && saysPrice(typed.data) ? objectOfPlain(typed.data, { id, currency: d.currency, day: d.from || today }) : null;
}

/** `own`: plans and providers that it can be for. `record`: the one that is mended. */
type Around = {
  id: string;
  record: MileRecord<'tariff'> | null;
  site: { id: string; networkId: string };
  own: { plans: readonly string[]; providers: readonly string[] };
  today: string;
};

/**
 * A typed price as it is kept, or what is wrong with it, by path: a field of the plain choices, of the record, or `sites`.
 * @param archived whether it is put away
 */
export function itemOfDraft(d: PriceDraft, of: Around, archived: boolean): { item: RecordItem<'tariff'> } | { odd: Record<string, string> } {
  const odd: Record<string, string> = {};
  const typed = plainPrice.safeParse(d.plain, { error: ownWords });
  if (!d.raw) {
    if (!typed.success) for (const issue of typed.error.issues) odd[issue.path.join('.')] ??= issue.message;
    else if (!saysPrice(typed.data)) odd.perKWh = 'What does it cost? Free of charge is 0';
    if ((d.plain.overstayFee === '') !== (d.plain.overstayAfterMin === '')) odd.overstayAfterMin = 'Both, or neither';
    if (d.plain.idleAfterMin !== '' && d.plain.idlePerMin === '') odd.idlePerMin = 'How much a minute?';
  }
  const sites = d.where === 'site' ? [of.site.id] : d.where === 'sites' ? d.siteIds : [];
  if (d.where === 'sites' && sites.length === 0) odd.sites = 'At least one site';
  const object = objectOfDraft(d, of.id, of.today);
  const line = d.raw ? oneLineOfObject(d.raw.tariff, d.raw.extra) : typed.success ? oneLineOf(typed.data) : { perKWh: null, startFee: '0' };
  const fields = RECORDS.tariff.safeParse({
    networkId: of.site.networkId,
    siteId: sites[0] ?? null,
    moreSiteIds: sites.slice(1),
    planId: of.own.plans.includes(d.forWhom) ? d.forWhom : null,
    providerId: of.own.providers.includes(d.forWhom) ? d.forWhom : null,
    currency: object?.tariff.currency ?? d.currency,
    ...line,
    tariff: object?.tariff ?? null,
    extra: object?.extra ?? null,
    validFrom: d.from,
    validUntil: d.until || null,
    note: d.note || null,
  });
  if (!fields.success) for (const issue of fields.error.issues) odd[issue.path.join('.')] ??= issue.message;
  if (!fields.success || Object.keys(odd).length > 0) return { odd };
  return { item: { type: 'tariff', id: of.id, baseRev: of.record?.rev ?? 0, archived, fields: fields.data } };
}
