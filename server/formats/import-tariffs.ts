import { isDeepStrictEqual } from 'node:util';
import { type JsonRefused, readingJson } from '@/core/formats/strict-json';
import { proposingTariffs, type TariffProposal, type TariffProposals } from '@/core/formats/tariff-proposals';
import { blankFields } from '@/core/records/record-schema';
import type { SignedIn } from '../accounts/sessions';
import { MAX_ITEMS, takeBatch } from '../outbox/take-batch';
import { readRecord, recordsOf, recordsWhere } from '../records/record-tables';
import { unhurried } from '../unhurried';
import { idOf } from './imported-events';

/** More at once nobody looks through; a file of more is sent in parts. */
const MOST_TARIFFS = 500;

/** A tariff of the file: what it says, and whether a price of this network says the very same. */
export type TariffRow = Omit<TariffProposal, 'tariff'> & { currency: string; by: string; here: boolean };
export type TariffsPreview = { rows: TariffRow[]; leftOut: { pointer: string; reason: string }[] };
/** As which price a row is to be kept: whom it is for and where; nothing is taken of one that is not named. Days are ISO dates. */
export type TariffChoice = { pointer: string; planId: string | null; providerId: string | null; siteId: string | null; from: string; until: string | null };
export type TariffsAnswer =
  | { ok: true; preview: TariffsPreview; taken?: number; refused?: { pointer: string; reason: string }[] }
  | { ok: false; refused: JsonRefused | { code: 'no_tariffs' | 'too_many' | 'no_network' } };

async function load(who: SignedIn, networkId: string, bytes: Uint8Array) {
  const network = await readRecord(who.householdId, 'network', networkId);
  if (!network) return { refused: { code: 'no_network' } as const };
  const read = await unhurried(readingJson(bytes));
  if (!read.ok) return { refused: { code: read.code, where: read.where } as JsonRefused };
  // The days of a network are those of its places.
  const [site] = await recordsWhere(who.householdId, 'site', 'networkId', [networkId]);
  const found = await unhurried(proposingTariffs(read.value, site?.fields.zone ?? who.zone));
  if (found.proposals.length === 0 && found.leftOut.length === 0) return { refused: { code: 'no_tariffs' } as const };
  if (found.proposals.length > MOST_TARIFFS) return { refused: { code: 'too_many' } as const };
  return found;
}

async function previewOf(who: SignedIn, networkId: string, { proposals, leftOut }: TariffProposals): Promise<TariffsPreview> {
  const standing = (await recordsWhere(who.householdId, 'tariff', 'networkId', [networkId])).filter((t) => !t.archived);
  const rows = proposals.map(
    ({ tariff, ...told }): TariffRow => ({
      ...told,
      currency: tariff.currency,
      by: `${tariff.country_code}*${tariff.party_id}*${tariff.id}`,
      here: standing.some((t) => isDeepStrictEqual(t.fields.tariff, tariff)),
    }),
  );
  return { rows, leftOut };
}

/** What would come of the Tariffs of a file, as prices of a network of this household. */
export async function previewTariffs(who: SignedIn, networkId: string, bytes: Uint8Array): Promise<TariffsAnswer> {
  const found = await load(who, networkId, bytes);
  return 'refused' in found ? { ok: false, refused: found.refused } : { ok: true, preview: await previewOf(who, networkId, found) };
}

/** Keeps those that were chosen as prices, each whole and by itself: the same choice twice is one price, and what is on file is changed by nothing. */
export async function takeTariffs(who: SignedIn, networkId: string, bytes: Uint8Array, choices: readonly TariffChoice[]): Promise<TariffsAnswer> {
  const found = await load(who, networkId, bytes);
  if ('refused' in found) return { ok: false, refused: found.refused };
  const by = new Map(found.proposals.map((p) => [p.pointer, p]));
  const [tariffs, sites, plans, providers] = await Promise.all([
    recordsOf(who.householdId, 'tariff'),
    recordsWhere(who.householdId, 'site', 'networkId', [networkId]),
    recordsOf(who.householdId, 'plan'),
    recordsOf(who.householdId, 'provider'),
  ]);
  const there = new Map(tariffs.map((t) => [t.id, t]));
  const wrongOf = (c: Omit<TariffChoice, 'pointer'>): string | null => {
    const unknown = (id: string | null, all: readonly { id: string }[]) => id !== null && !all.some((r) => r.id === id);
    if (unknown(c.siteId, sites)) return 'siteId is no site of this network';
    if (unknown(c.planId, plans)) return 'planId is no plan here';
    return unknown(c.providerId, providers) ? 'providerId is no provider here' : null;
  };
  const refused: { pointer: string; reason: string }[] = [];
  const items = choices.flatMap(({ pointer, ...choice }) => {
    const proposal = by.get(pointer);
    const wrong = proposal ? wrongOf(choice) : 'is no tariff of this file';
    if (!proposal || wrong) {
      refused.push({ pointer, reason: wrong ?? '' });
      return [];
    }
    const { tariff, perKWh, startFee } = proposal;
    const { from, until, siteId, planId, providerId } = choice;
    const id = idOf(who.householdId, `tariff ${networkId} ${siteId} ${planId} ${providerId} ${from} ${until} ${JSON.stringify(tariff)}`);
    const said = { networkId, siteId, planId, providerId, currency: tariff.currency, perKWh, startFee, tariff, validFrom: from, validUntil: until };
    const before = there.get(id);
    if (before && !before.archived) {
      // What somebody made of it since, its end say, is not undone by the file that it came of.
      const stands = Object.entries(said).every(([name, value]) => isDeepStrictEqual(before.fields[name as keyof typeof said], value));
      if (!stands) refused.push({ pointer, reason: 'is here and was changed since: it stays as it is' });
      return [];
    }
    // One that was put away comes into use again.
    const record = { type: 'tariff', id, baseRev: before?.rev ?? 0, archived: false, fields: { ...blankFields('tariff'), ...said } };
    return [{ pointer, item: { type: 'record', record } }];
  });
  let taken = 0;
  for (let at = 0; at < items.length; at += MAX_ITEMS) {
    const part = items.slice(at, at + MAX_ITEMS);
    const answer = await takeBatch(who, { items: part.map((p) => p.item) });
    if (!answer.ok) throw new Error(answer.reason);
    for (const [i, r] of answer.results.entries()) {
      if (r.status === 'taken') taken += 1;
      else if (r.status !== 'already') refused.push({ pointer: part[i]?.pointer ?? '', reason: `${r.path ?? ''} ${r.reason ?? ''}`.trim() });
    }
  }
  return { ok: true, preview: await previewOf(who, networkId, found), taken, refused };
}
