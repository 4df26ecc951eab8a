'use client';
import { useEffect, useMemo, useState } from 'react';
import { v7 } from 'uuid';
import { phoneNow } from '@/client/touch/touch-time';
import { fetchedLater } from '@/client/visit-session/fetched-later';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { draftFrom, draftOf, itemOfDraft, objectOfDraft, otherPrices, type PriceDraft } from '@/core/tariff/price-draft';
import { priceWords } from '@/core/tariff/price-words';
import { printCalendarDate } from '@/core/units/zoned';
import { FormAlert } from '@/ui/forms/form-alert';
import { Sheet } from '@/ui/pads/sheet';
import { type Named, type PriceAround, PriceSaid, unseenOf } from '@/ui/prices/price-said';
import type { LiveFacts } from '../live-facts';
import type { Records } from '../stall-state';

type Props = {
  records: Records;
  site: NonNullable<LiveFacts['site']>;
  network: LiveFacts['network'];
  offers: LiveFacts['offers'];
  /** Of the visit: what is read on it holds from that day on. */
  day: string;
  currency: string;
  onClose: () => void;
  onSave: (items: RecordItem[]) => Promise<void>;
};

/** The prices that hold here, and the form of one: what the post says, dated, for guests, a plan or a provider. */
export function PricesSheet(props: Props) {
  const { records, site, offers, day, currency, onClose } = props;
  const [form, setForm] = useState<{ record: MileRecord<'tariff'> | null; draft: PriceDraft } | null>(null);
  const of = { siteId: site.id, currency, today: day };
  if (form) return <PriceSheet {...props} {...form} onBack={() => setForm(null)} />;
  return (
    <Sheet title={`Prices at ${site.fields.name}`} onClose={onClose} hint="A visit keeps the price of its day.">
      {offers.length === 0 ? <p className="mb-3 text-[15px]">No price is on file here. What stands on the post is enough to begin with.</p> : null}
      <ul>
        {offers.map(({ tariff, by }) => {
          const record = records.tariff.find((r) => r.id === tariff.id);
          return (
            <li key={tariff.id} className="mb-4 border-b border-rule-2 pb-3">
              <p className="text-[15px] font-semibold">{priceWords(tariff)}</p>
              <p className="mb-2 text-[13px] text-ink-2">
                {by ?? 'Guests'}, from {printCalendarDate(tariff.validFrom)}
              </p>
              {record ? (
                <div className="grid grid-cols-2 gap-2">
                  <button type="button" className="plate !min-h-[48px]" onClick={() => setForm({ record: null, draft: draftFrom(record, of, v7()) })}>
                    Another price now
                  </button>
                  <button type="button" className="plate !min-h-[48px]" onClick={() => setForm({ record, draft: draftOf(record, of) })}>
                    Mend this one
                  </button>
                </div>
              ) : null}
            </li>
          );
        })}
      </ul>
      <button type="button" className="plate plate-next !min-h-[52px] w-full" onClick={() => setForm({ record: null, draft: draftOf(null, of) })}>
        Add a price
      </button>
    </Sheet>
  );
}

/** A stop by which a price is tried: long enough to say something. */
const TRY = { kWh: 40, minutes: 30 };
const parts = fetchedLater(() => import('../advice-parts'));

function PriceSheet({
  records,
  site,
  network,
  onClose,
  onSave,
  record,
  draft: begun,
  day: today,
  onBack,
}: Props & { record: MileRecord<'tariff'> | null; draft: PriceDraft; onBack: () => void }) {
  const [id] = useState(() => record?.id ?? v7());
  const [draft, setDraft] = useState(begun);
  const [odd, setOdd] = useState<Record<string, string>>({});
  const [busy, setBusy] = useState(false);
  const [tries, setTries] = useState<Awaited<ReturnType<typeof parts>>['tryPrice'] | null>(null);
  useEffect(() => {
    parts().then(
      (m) => setTries(() => m.tryPrice),
      () => {},
    );
  }, []);
  const set = (change: Partial<PriceDraft>) => setDraft((d) => ({ ...d, ...change }));
  const object = objectOfDraft(draft, id, today);
  const tried = tries && object ? tries(object, site.fields.zone, phoneNow(), today, TRY) : null;
  const around = useMemo(() => aroundOf(records, site, network, begun.forWhom, today), [records, site, network, begun.forWhom, today]);
  const save = async () => {
    const own = { plans: records.plan.map((p) => p.id), providers: records.provider.map((p) => p.id) };
    const kept = itemOfDraft(draft, { id, record, site: { id: site.id, networkId: site.fields.networkId }, own, today }, record?.archived ?? false);
    if ('odd' in kept) {
      setOdd(kept.odd);
      requestAnimationFrame(() => document.querySelector<HTMLElement>('[role=dialog] [aria-invalid="true"]')?.focus());
      return;
    }
    setBusy(true);
    await onSave([kept.item]).finally(() => setBusy(false));
    onBack();
  };
  return (
    <Sheet title={record ? 'Mend the price' : `A price at ${site.fields.name}`} onClose={onClose}>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <PriceSaid id={id} draft={draft} object={object} odd={odd} around={around} onChange={set} onAnew={() => setOdd({})} />
        <p aria-live="polite" className="mb-3 min-h-[21px] text-[14px] text-ink-2">
          {tried?.cost ? `${TRY.kWh} kWh in ${TRY.minutes} min from now would cost ${tried.cost}.` : ''}
        </p>
        {tried?.questions.map((q) => (
          <p key={q} className="mb-3 border-l-4 border-paint px-3 py-1 text-[14px]">
            {q}
          </p>
        ))}
        <FormAlert message={unseenOf(odd)} />
        <div className="grid grid-cols-[1fr_2fr] gap-2">
          <button type="button" className="plate !min-h-[52px]" onClick={onBack}>
            Back
          </button>
          <button type="submit" disabled={busy} className="plate plate-next !min-h-[52px]">
            Keep the price
          </button>
        </div>
      </form>
    </Sheet>
  );
}

const named = (r: { id: string; fields: { name: string } }): Named => ({ id: r.id, name: r.fields.name });
/** What a price is typed among, from the phone's own copy. @param forWhom a plan that it is for already, held or not */
function aroundOf(records: Records, site: Props['site'], network: Props['network'], forWhom: string, today: string): PriceAround {
  const nameOf = (of: { id: string; fields: { name: string } }[], id: string) => of.find((r) => r.id === id)?.fields.name;
  const held = records.plan.filter((p) => p.id === forWhom || (p.fields.from <= today && (p.fields.until === null || today <= p.fields.until)));
  return {
    site: named(site),
    network: network?.fields.name ?? 'the network',
    sites: records.site.filter((s) => s.fields.networkId === site.fields.networkId).map(named),
    plans: held.map(named),
    providers: records.provider.map(named),
    others: otherPrices(
      records.tariff,
      (networkId, siteId) =>
        `${nameOf(records.network, networkId) ?? 'Unknown network'}, ${siteId === null ? 'all' : (nameOf(records.site, siteId) ?? 'one site')}`,
    ),
  };
}
