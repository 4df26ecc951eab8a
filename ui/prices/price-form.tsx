'use client';
import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import { extraPricing, ocpiTariff } from '@/core/records/ocpi-tariff';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { type PlainPrice, plainOfObject } from '@/core/tariff/plain-price';
import { draftOf, GUESTS, itemOfDraft, objectOfDraft, type PriceDraft, type PriceObject } from '@/core/tariff/price-draft';
import { ownWords } from '@/core/units/own-words';
import { FormAlert } from '../forms/form-alert';
import { FormField, fieldState } from '../forms/form-field';
import { OneOf } from '../forms/one-of';
import { PlainFields } from './plain-fields';
import { PriceTry } from './price-try';

type Named = { id: string; name: string };
export type PriceFormProps = {
  record: MileRecord<'tariff'> | null;
  /** What a new one starts from: what a post was noted to say. */
  start: Partial<PlainPrice>;
  site: Named & { networkId: string; zone: string };
  network: string;
  sites: Named[];
  plans: Named[];
  providers: Named[];
  /** Prices of other places that one can start from. */
  others: (PriceObject & { name: string })[];
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
  const { raw, plain, forWhom, where, siteIds, currency, from, until, note } = draft;
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
      setProblem(Object.keys(bad).some((path) => !SEEN.test(path)) ? Object.values(bad).join(' ') : null);
      requestAnimationFrame(() => document.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus());
      return;
    }
    setBusy(true);
    const outcome = await props.onSave(kept.item).finally(() => setBusy(false));
    if (outcome && 'problem' in outcome) setProblem(outcome.problem);
    else if (outcome) setSaid(outcome.said);
  };

  const whom = [
    { id: GUESTS, name: 'Guests' },
    ...props.plans.map((p) => ({ id: p.id, name: `Plan: ${p.name}` })),
    ...props.providers.map((p) => ({ id: p.id, name: `Provider: ${p.name}` })),
  ];
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
        <div className="grid gap-x-4 sm:grid-cols-2">
          <FormField id="whom" label="For whom">
            <select id="whom" className="field" value={forWhom} onChange={(e) => set({ forWhom: e.target.value })}>
              {whom.map((w) => (
                <option key={w.id} value={w.id}>
                  {w.name}
                </option>
              ))}
            </select>
          </FormField>
          <FormField id="currency" label="Currency" error={odd.currency}>
            <input
              {...fieldState('currency', odd.currency)}
              value={currency}
              disabled={raw !== null}
              onChange={(e) => set({ currency: e.target.value.toUpperCase() })}
              autoComplete="off"
            />
          </FormField>
          <FormField id="from" label="From" error={odd.validFrom}>
            <input type="date" {...fieldState('from', odd.validFrom)} value={from} onChange={(e) => set({ from: e.target.value })} />
          </FormField>
          <FormField id="until" label="Until" error={odd.validUntil} hint="The last day, if it is known">
            <input type="date" {...fieldState('until', odd.validUntil)} value={until} onChange={(e) => set({ until: e.target.value })} />
          </FormField>
        </div>
        <OneOf
          label="Where"
          value={where}
          choices={[
            ['site', `Only ${site.name}`],
            ['network', `All of ${props.network}`],
            ...(props.sites.length > 1 ? [['sites', 'Some sites'] as const] : []),
          ]}
          onChoose={(chosen) => set({ where: chosen })}
        />
        {where === 'sites' ? (
          <fieldset className="mt-2">
            <legend className="sr-only">Sites</legend>
            <div className="flex flex-wrap gap-x-5 gap-y-1">
              {props.sites.map((s) => (
                <label key={s.id} className="flex min-h-[44px] items-center gap-2 text-[14px]">
                  <input
                    type="checkbox"
                    className="size-5"
                    checked={siteIds.includes(s.id)}
                    onChange={(e) => set({ siteIds: e.target.checked ? [...siteIds, s.id] : siteIds.filter((x) => x !== s.id) })}
                  />
                  {s.name}
                </label>
              ))}
            </div>
            {odd.sites ? (
              <p role="alert" className="text-[13px] font-semibold text-fault">
                {odd.sites}
              </p>
            ) : null}
          </fieldset>
        ) : null}
        <div className="mt-5">
          {raw ? (
            <p className="border-l-4 border-rule bg-card px-3 py-2 text-[14px]">
              This tariff says more than the plain choices can. It is changed as an object below.{' '}
              <button type="button" className="min-h-6 font-semibold text-shake underline" onClick={() => set({ raw: null })}>
                Type it anew
              </button>
            </p>
          ) : (
            <>
              {props.others.length > 0 ? (
                <FormField id="copy" label="Start from another price" hint="Its choices are filled in below">
                  <select
                    id="copy"
                    className="field"
                    value=""
                    onChange={(e) => {
                      const other = props.others[Number(e.target.value)];
                      if (!other || e.target.value === '') return;
                      const choices = plainOfObject(other.tariff, other.extra);
                      const whole = { tariff: { ...other.tariff, id }, extra: other.extra };
                      set({ currency: other.tariff.currency, ...(choices ? { plain: choices } : { raw: whole }) });
                    }}
                  >
                    <option value="">Choose …</option>
                    {props.others.map((o, i) => (
                      <option key={o.name} value={i}>
                        {o.name}
                      </option>
                    ))}
                  </select>
                </FormField>
              ) : null}
              <PlainFields plain={plain} odd={odd} currency={currency} onChange={(next) => set({ plain: next })} />
            </>
          )}
        </div>
        <ObjectBehind
          key={JSON.stringify(object)}
          object={object}
          onUse={(used) => {
            const choices = plainOfObject(used.tariff, used.extra);
            setOdd({});
            set({ currency: used.tariff.currency, ...(choices ? { plain: choices, raw: null } : { raw: used }) });
          }}
        />
        <FormField id="note" label="Note" error={odd.note} hint="Where it was read">
          <input {...fieldState('note', odd.note)} value={note} onChange={(e) => set({ note: e.target.value })} autoComplete="off" />
        </FormField>
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

/** Paths whose message stands beside a control. */
const SEEN = /^(perKWh|startFee|windows|perMin|parkedPerMin|byPower|idle|overstay|freeMin|minimum|taxOnTop|currency|validFrom|validUntil|note|sites)/;

/** The object as text: to read, to change, to paste one in. */
function ObjectBehind({ object, onUse }: { object: PriceObject | null; onUse: (used: PriceObject) => void }) {
  const [text, setText] = useState(() =>
    object ? JSON.stringify({ tariff: object.tariff, ...(object.extra ? { x_pricing: object.extra } : {}) }, null, 1) : '',
  );
  const [problems, setProblems] = useState<string[]>([]);
  const use = () => {
    let read: unknown;
    try {
      read = JSON.parse(text);
    } catch {
      return setProblems(['This is not JSON.']);
    }
    // A tariff alone, as a network publishes it, or with what stands beside it.
    const whole = (typeof read === 'object' && read !== null ? read : {}) as Record<string, unknown>;
    const tariff = ocpiTariff.safeParse('elements' in whole ? whole : whole.tariff, { error: ownWords });
    const extra = 'elements' in whole || whole.x_pricing === undefined ? null : extraPricing.safeParse(whole.x_pricing, { error: ownWords });
    const found = [...(tariff.success ? [] : tariff.error.issues), ...(extra === null || extra.success ? [] : extra.error.issues)];
    if (found.length > 0) return setProblems(found.slice(0, 8).map((i) => `${i.path.join('.') || 'tariff'}: ${i.message}`));
    setProblems([]);
    if (tariff.success) onUse({ tariff: tariff.data, extra: extra?.success ? extra.data : null });
  };
  return (
    <details className="mb-4 mt-2">
      <summary className="inline-block min-h-[44px] cursor-pointer py-2.5 font-semibold text-shake">The object behind it, or paste one in</summary>
      <label htmlFor="object" className="mb-1 block text-sm font-semibold">
        Tariff by OCPI 2.2.1, with x_pricing beside it
      </label>
      <textarea
        id="object"
        className="field num min-h-[220px] w-full text-[12.5px]"
        spellCheck={false}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {problems.length > 0 ? (
        <ul role="alert" className="mt-1 text-[13px] font-semibold text-fault">
          {problems.map((p) => (
            <li key={p}>{p}</li>
          ))}
        </ul>
      ) : null}
      <button type="button" className="plate mt-2 !min-h-[44px]" onClick={use}>
        Use this object
      </button>
    </details>
  );
}
