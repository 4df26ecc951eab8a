import type { MileRecord, RecordFields } from '../records/record-schema';
import { onceOf } from '../units/once-of';

/** A price as it is kept. */
export type KeptTariff = RecordFields<'tariff'> & { id: string };
/** The same object for the same record: what is made of a price is made once. */
export const keptTariff = onceOf((t: MileRecord<'tariff'>): KeptTariff => ({ id: t.id, ...t.fields }));

/** Whom a price is for: nobody in particular, those who hold a plan, those who pay through a provider. */
export type Payer = { planId: string | null; providerId: string | null };
export const GUEST: Payer = { planId: null, providerId: null };

type Place = { siteId: string | null; networkId: string | null };
/** Whether a price is of a place: of one of its sites, or of all of its network. */
const isOf = (t: Omit<KeptTariff, 'id'>, place: Place): boolean =>
  t.siteId === null ? t.networkId === place.networkId : t.siteId === place.siteId || (place.siteId !== null && (t.moreSiteIds ?? []).includes(place.siteId));

/**
 * The price in force at a place on a day for somebody: that of its sites before that of the network, and of these the one that began last. One that was put away counts for
 * its days like any other: a visit keeps the price of its day.
 * @param records every price kept, archived ones too @param day ISO date, local to the place
 */
export function tariffOn(records: readonly MileRecord<'tariff'>[], place: Place, day: string, payer: Payer = GUEST): KeptTariff | undefined {
  return records
    .filter(
      ({ fields: t }) =>
        // A phone may still have a copy from before there were plans, sites and last days.
        (t.planId ?? null) === payer.planId &&
        (t.providerId ?? null) === payer.providerId &&
        t.validFrom <= day &&
        day <= (t.validUntil ?? day) &&
        isOf(t, place),
    )
    .map(keptTariff)
    .sort(
      (a, b) =>
        Number(b.siteId !== null) - Number(a.siteId !== null) || (a.validFrom < b.validFrom ? 1 : a.validFrom > b.validFrom ? -1 : a.id < b.id ? 1 : -1),
    )[0];
}

/**
 * Prices by where they are of, so that two thousand sites are not each held against every price: those of a network as a whole, and those of each site.
 * @returns the prices that a place could have
 */
export function pricesByPlace(records: readonly MileRecord<'tariff'>[]): (place: Place) => MileRecord<'tariff'>[] {
  const lists = new Map<string, MileRecord<'tariff'>[]>();
  const add = (key: string, t: MileRecord<'tariff'>) => {
    const list = lists.get(key);
    if (list) list.push(t);
    else lists.set(key, [t]);
  };
  for (const t of records) for (const key of t.fields.siteId === null ? [t.fields.networkId] : [t.fields.siteId, ...(t.fields.moreSiteIds ?? [])]) add(key, t);
  return ({ siteId, networkId }) => [...(lists.get(siteId ?? '') ?? []), ...(lists.get(networkId ?? '') ?? [])];
}

/** What somebody may pay by at a place on a day: as a guest, and with each plan held and each provider. */
export type Offer = { payer: Payer; tariff: KeptTariff };
/**
 * Every price in force at a place on a day that this household could pay by.
 * @param plans held, with when; archived ones count for their days
 */
export function offersOn(
  records: readonly MileRecord<'tariff'>[],
  plans: readonly MileRecord<'plan'>[],
  providerIds: readonly string[],
  place: Place,
  day: string,
): Offer[] {
  const held = plans.filter((p) => p.fields.from <= day && (p.fields.until === null || day <= p.fields.until));
  const payers: Payer[] = [
    GUEST,
    ...held.map((p) => ({ planId: p.id, providerId: null })),
    ...[...new Set(providerIds)].map((providerId) => ({ planId: null, providerId })),
  ];
  return payers.flatMap((payer) => {
    const tariff = tariffOn(records, place, day, payer);
    return tariff ? [{ payer, tariff }] : [];
  });
}

/** The offer that a charge is held against: by a plan that is held, else through a provider, else as a guest. */
export const takenOf = (offers: readonly Offer[]): Offer | undefined =>
  offers.find((o) => o.payer.planId) ?? offers.find((o) => o.payer.providerId) ?? offers[0];

/** What a plan or a provider is called; `null`: a guest. */
export const payerName = (payer: Payer, named: { plans: readonly MileRecord<'plan'>[]; providers: readonly MileRecord<'provider'>[] }): string | null =>
  payer.planId
    ? (named.plans.find((p) => p.id === payer.planId)?.fields.name ?? 'a plan')
    : payer.providerId
      ? (named.providers.find((p) => p.id === payer.providerId)?.fields.name ?? 'a provider')
      : null;

/** The providers of the means that are named. */
export const providersOf = (means: readonly MileRecord<'means'>[], ids: readonly (string | undefined)[]): string[] =>
  means.flatMap((m) => (ids.includes(m.id) && m.fields.providerId ? [m.fields.providerId] : []));
