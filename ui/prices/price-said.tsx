'use client';
import { GUESTS, type OtherPrice, type PriceDraft, type PriceObject, saidBy } from '@/core/tariff/price-draft';
import { FormField, fieldState } from '../forms/form-field';
import { OneOf } from '../forms/one-of';
import { ObjectBehind } from './object-behind';
import { PlainFields } from './plain-fields';

export type Named = { id: string; name: string };
/** What a price is typed among: where and for whom it can be, and prices of other places that one can start from. */
export type PriceAround = {
  site: Named;
  network: string;
  sites: readonly Named[];
  plans: readonly Named[];
  providers: readonly Named[];
  others: readonly OtherPrice[];
};

/** All that is said of a price: for whom, since when, where, plain choices first, the object behind them one press away. */
export function PriceSaid({
  id,
  draft,
  object,
  odd,
  around: { site, network, sites, plans, providers, others },
  onChange,
  onAnew,
}: {
  id: string;
  draft: PriceDraft;
  /** The one behind what is typed. */
  object: PriceObject | null;
  odd: Readonly<Record<string, string>>;
  around: PriceAround;
  onChange: (change: Partial<PriceDraft>) => void;
  /** Another price took the place of what was typed. */
  onAnew: () => void;
}) {
  const { raw, plain, forWhom, where, siteIds, currency, from, until, note } = draft;
  const whom = [
    { id: GUESTS, name: 'Guests' },
    ...plans.map((p) => ({ id: p.id, name: `Plan: ${p.name}` })),
    ...providers.map((p) => ({ id: p.id, name: `Provider: ${p.name}` })),
  ];
  return (
    <>
      <div className="grid gap-x-4 sm:grid-cols-2">
        <FormField id="whom" label="For whom">
          <select id="whom" className="field" value={forWhom} onChange={(e) => onChange({ forWhom: e.target.value })}>
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
            onChange={(e) => onChange({ currency: e.target.value.toUpperCase() })}
            autoComplete="off"
          />
        </FormField>
        <FormField id="from" label="From" error={odd.validFrom}>
          <input type="date" {...fieldState('from', odd.validFrom)} value={from} onChange={(e) => onChange({ from: e.target.value })} />
        </FormField>
        <FormField id="until" label="Until" error={odd.validUntil} hint="The last day, if it is known">
          <input type="date" {...fieldState('until', odd.validUntil)} value={until} onChange={(e) => onChange({ until: e.target.value })} />
        </FormField>
      </div>
      <OneOf
        label="Where"
        value={where}
        choices={[['site', `Only ${site.name}`], ['network', `All of ${network}`], ...(sites.length > 1 ? [['sites', 'Some sites'] as const] : [])]}
        onChoose={(chosen) => onChange({ where: chosen })}
      />
      {where === 'sites' ? (
        <fieldset className="mt-2">
          <legend className="sr-only">Sites</legend>
          <div className="flex flex-wrap gap-x-5 gap-y-1">
            {sites.map((s) => (
              <label key={s.id} className="flex min-h-[44px] items-center gap-2 text-[14px]">
                <input
                  type="checkbox"
                  className="size-5"
                  checked={siteIds.includes(s.id)}
                  onChange={(e) => onChange({ siteIds: e.target.checked ? [...siteIds, s.id] : siteIds.filter((x) => x !== s.id) })}
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
            <button type="button" className="min-h-6 font-semibold text-shake underline" onClick={() => onChange({ raw: null })}>
              Type it anew
            </button>
          </p>
        ) : (
          <>
            {others.length > 0 ? (
              <FormField id="copy" label="Start from another price" hint="Its choices are filled in below">
                <select
                  id="copy"
                  className="field"
                  value=""
                  onChange={(e) => {
                    const other = others[Number(e.target.value)];
                    if (other && e.target.value !== '') onChange(saidBy(other, id));
                  }}
                >
                  <option value="">Choose …</option>
                  {others.map((o, i) => (
                    <option key={o.name} value={i}>
                      {o.name}
                    </option>
                  ))}
                </select>
              </FormField>
            ) : null}
            <PlainFields plain={plain} odd={odd} currency={currency} onChange={(next) => onChange({ plain: next })} />
          </>
        )}
      </div>
      <ObjectBehind
        key={JSON.stringify(object)}
        object={object}
        onUse={(used) => {
          onAnew();
          onChange(saidBy(used, id));
        }}
      />
      <FormField id="note" label="Note" error={odd.note} hint="Where it was read">
        <input {...fieldState('note', odd.note)} value={note} onChange={(e) => onChange({ note: e.target.value })} autoComplete="off" />
      </FormField>
    </>
  );
}

/** Paths whose message stands beside a control. */
const SEEN = /^(perKWh|startFee|windows|perMin|parkedPerMin|byPower|idle|overstay|freeMin|minimum|taxOnTop|currency|validFrom|validUntil|note|sites)/;
/** What is wrong that no control says; `null`: nothing. */
export const unseenOf = (odd: Readonly<Record<string, string>>): string | null =>
  Object.keys(odd).some((path) => !SEEN.test(path)) ? Object.values(odd).join(' ') : null;
