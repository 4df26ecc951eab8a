'use client';
import { useEffect, useState } from 'react';
import { v7 } from 'uuid';
import { phoneNow } from '@/client/touch/touch-time';
import { fetchedLater } from '@/client/visit-session/fetched-later';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { draftFrom, draftOf, GUESTS, itemOfDraft, objectOfDraft, type PriceDraft } from '@/core/tariff/price-draft';
import { priceWords } from '@/core/tariff/price-words';
import { localDay, printSeen } from '@/core/units/zoned';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { OneOf } from '@/ui/forms/one-of';
import { Sheet } from '@/ui/pads/sheet';
import { PlainFields } from '@/ui/prices/plain-fields';
import type { LiveFacts } from '../live-facts';
import type { Records } from '../stall-state';

type Props = {
  records: Records;
  site: NonNullable<LiveFacts['site']>;
  network: LiveFacts['network'];
  offers: LiveFacts['offers'];
  currency: string;
  onClose: () => void;
  onSave: (items: RecordItem[]) => Promise<void>;
};

/** The prices that hold here, and the form of one: what the post says, dated, for guests, a plan or a provider. */
export function PricesSheet(props: Props) {
  const { records, site, offers, currency, onClose } = props;
  const [form, setForm] = useState<{ record: MileRecord<'tariff'> | null; draft: PriceDraft } | null>(null);
  const of = { siteId: site.id, currency, today: localDay(phoneNow(), site.fields.zone) };
  if (form) return <PriceSheet {...props} {...form} today={of.today} onBack={() => setForm(null)} />;
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
                {by ?? 'Guests'}, from {printSeen(tariff.validFrom)} {tariff.validFrom.slice(0, 4)}
              </p>
              {record ? (
                <div className="grid grid-cols-2 gap-2">
                  <button type="button" className="plate !min-h-[48px]" onClick={() => setForm({ record: null, draft: draftFrom(record, of) })}>
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
  today,
  onBack,
}: Props & { record: MileRecord<'tariff'> | null; draft: PriceDraft; today: string; onBack: () => void }) {
  const [id] = useState(() => record?.id ?? v7());
  const [draft, setDraft] = useState(begun);
  const [odd, setOdd] = useState<Record<string, string>>({});
  const [busy, setBusy] = useState(false);
  const [stop, setStop] = useState<Awaited<ReturnType<typeof parts>>['stopCost'] | null>(null);
  useEffect(() => {
    parts().then(
      (m) => setStop(() => m.stopCost),
      () => {},
    );
  }, []);
  const set = (change: Partial<PriceDraft>) => setDraft((d) => ({ ...d, ...change }));
  const object = objectOfDraft(draft, id, today);
  const tried = stop && object ? stop(object, site.fields.zone, phoneNow(), TRY) : null;
  const held = records.plan.filter((p) => p.fields.from <= today && (p.fields.until === null || today <= p.fields.until));
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
  const elsewhere = Object.entries(odd).filter(
    ([path]) => !/^(currency|validFrom|whom)$/.test(path) && !(path in draft.plain) && !/^(windows|byPower)/.test(path),
  );
  return (
    <Sheet title={record ? 'Mend the price' : `A price at ${site.fields.name}`} onClose={onClose}>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <div className="grid grid-cols-2 gap-x-4">
          <FormField id="price-whom" label="For whom">
            <select id="price-whom" className="field" value={draft.forWhom} onChange={(e) => set({ forWhom: e.target.value })}>
              <option value={GUESTS}>Guests</option>
              {[...new Set([...held, ...records.plan.filter((p) => p.id === draft.forWhom)])].map((p) => (
                <option key={p.id} value={p.id}>
                  {p.fields.name}
                </option>
              ))}
              {records.provider.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.fields.name}
                </option>
              ))}
            </select>
          </FormField>
          <FormField id="price-currency" label="Currency" error={odd.currency}>
            <input
              {...fieldState('price-currency', odd.currency)}
              value={draft.currency}
              disabled={draft.raw !== null}
              autoComplete="off"
              onChange={(e) => set({ currency: e.target.value.toUpperCase() })}
            />
          </FormField>
          <div className="col-span-2">
            <FormField id="price-from" label="From" error={odd.validFrom}>
              <input type="date" {...fieldState('price-from', odd.validFrom)} value={draft.from} onChange={(e) => set({ from: e.target.value })} />
            </FormField>
          </div>
        </div>
        <OneOf
          label="Where"
          value={draft.where}
          choices={[
            ['site', `Only ${site.fields.name}`],
            ['network', `All of ${network?.fields.name ?? 'the network'}`],
            ...(begun.where === 'sites' ? [['sites', 'The same sites as before'] as const] : []),
          ]}
          onChoose={(where) => set({ where })}
          row="mb-4 flex flex-wrap gap-2"
        />
        {draft.raw ? (
          <p className="mb-3 border-l-4 border-rule px-3 py-2 text-[14px]">
            {priceWords({ ...RAW, ...(record?.fields ?? {}), ...draft.raw, currency: draft.currency })}: more than the plain choices can say. At the desk it is
            changed as an object.{' '}
            <button type="button" className="min-h-11 font-semibold text-shake underline" onClick={() => set({ raw: null })}>
              Type it anew
            </button>
          </p>
        ) : (
          <PlainFields plain={draft.plain} odd={odd} currency={draft.currency} onChange={(plain) => set({ plain })} />
        )}
        <p aria-live="polite" className="mb-3 min-h-[21px] text-[14px] text-ink-2">
          {tried ? `${TRY.kWh} kWh in ${TRY.minutes} min from now would cost ${tried}.` : ''}
        </p>
        <FormAlert message={elsewhere.map(([, message]) => message).join(' ') || null} />
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
const RAW = { perKWh: null, startFee: '0' } as MileRecord<'tariff'>['fields'];
