'use client';
import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import type { PlainPrice } from '@/core/tariff/plain-price';
import { draftOf, itemOfDraft, objectOfDraft, type PriceDraft } from '@/core/tariff/price-draft';
import { FormAlert } from '../forms/form-alert';
import { type Named, type PriceAround, PriceSaid, unseenOf } from './price-said';
import { PriceTry } from './price-try';

export type PriceFormProps = PriceAround & {
  record: MileRecord<'tariff'> | null;
  /** What a new one starts from: what a post was noted to say. */
  start: Partial<PlainPrice>;
  site: Named & { networkId: string; zone: string };
  currency: string;
  today: string;
  /** Keeps the price. @returns what is to be said, as a problem or not; `null` when it is kept and the page left */
  onSave: (item: RecordItem<'tariff'>) => Promise<{ problem: string } | { said: string } | null>;
};

/** A price, from a day on: plain choices first, the object behind them one press away, and what a stop costs by it while one types. */
export function PriceForm(props: PriceFormProps) {
  const { record, site } = props;
  const [id] = useState(() => record?.id ?? v7());
  const [draft, setDraft] = useState<PriceDraft>(() => {
    const begun = draftOf(record, { siteId: site.id, currency: props.currency, today: props.today });
    return record ? begun : { ...begun, plain: { ...begun.plain, ...props.start } };
  });
  const set = (change: Partial<PriceDraft>) => setDraft((d) => ({ ...d, ...change }));
  const [odd, setOdd] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const object = useMemo(() => objectOfDraft(draft, id, props.today), [draft, id, props.today]);

  const save = async (archived: boolean) => {
    setProblem(null);
    setSaid(null);
    const own = { plans: props.plans.map((p) => p.id), providers: props.providers.map((p) => p.id) };
    const kept = itemOfDraft(draft, { id, record, site, own, today: props.today }, archived);
    const bad = 'odd' in kept ? kept.odd : {};
    setOdd(bad);
    if ('odd' in kept) {
      setProblem(unseenOf(bad));
      requestAnimationFrame(() => document.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus());
      return;
    }
    setBusy(true);
    const outcome = await props.onSave(kept.item).finally(() => setBusy(false));
    if (outcome && 'problem' in outcome) setProblem(outcome.problem);
    else if (outcome) setSaid(outcome.said);
  };

  return (
    <form
      noValidate
      className="grid gap-x-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,380px)]"
      onSubmit={(e) => {
        e.preventDefault();
        void save(record?.archived ?? false);
      }}
    >
      <div className="min-w-0">
        <PriceSaid id={id} draft={draft} object={object} odd={odd} around={props} onChange={set} onAnew={() => setOdd({})} />
        <FormAlert message={problem} />
        {said ? (
          <p role="status" className="mb-3 border-l-4 border-paint bg-card px-3 py-2 text-sm font-semibold">
            {said}
          </p>
        ) : null}
        <div className="flex flex-wrap gap-3">
          <button type="submit" disabled={busy} className="plate plate-next !min-h-[48px] text-[16px] sm:!px-8">
            {record ? 'Save' : 'Add the price'}
          </button>
          {record ? (
            <button type="button" disabled={busy} className="plate !min-h-[48px]" onClick={() => void save(!record.archived)}>
              {record.archived ? 'Bring back' : 'Put away'}
            </button>
          ) : null}
        </div>
        {record ? (
          <p className="mt-2 text-[13px] text-ink-2">
            Changing it mends what was read that day, for the visits of its days too. For a price that has changed since, add a new one.
          </p>
        ) : null}
      </div>
      <div className="mt-6 min-w-0 lg:mt-0">
        <PriceTry object={object} zone={site.zone} today={props.today} />
      </div>
    </form>
  );
}
