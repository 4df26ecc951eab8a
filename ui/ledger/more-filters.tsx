'use client';
import * as Popover from '@radix-ui/react-popover';
import { usePathname, useRouter } from 'next/navigation';
import { useState } from 'react';
import { LEDGER_ONLY, type LedgerFilter, ONLY_LABELS, readLedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import { MEANS_KINDS } from '@/core/records/means-kind';
import { Floating } from '../forms/floating';
import { FormField } from '../forms/form-field';
import { PickOne } from '../forms/pick-one';

type Named = readonly { id: string; name: string }[];
const MORE = ['since', 'until', 'site', 'car', 'driver', 'means', 'only', 'text'] as const;

/** A field that keeps its own choice until the form is taken. */
function Picked({ start, ...of }: { id: string; name: string; none: string; list: Named; start: string; className: string }) {
  const [value, setValue] = useState(start);
  return <PickOne {...of} value={value} onPick={setValue} />;
}

/** Every further way to narrow the ledger. What is chosen lives in the address. */
export function MoreFilters({
  filter,
  sites,
  cars,
  people,
  beside = '',
}: {
  filter: LedgerFilter;
  sites: Named;
  cars: Named;
  people: Named;
  /** What else the address holds: how what is filtered is shown. */
  beside?: string;
}) {
  const router = useRouter();
  const path = usePathname();
  const go = (address: string) => router.push(`${path}${address}${beside && (address ? `&${beside}` : `?${beside}`)}`);
  const [open, setOpen] = useState(false);
  const chosen = MORE.filter((name) => filter[name] !== undefined).length;
  const take = (form: HTMLFormElement) => {
    const data = new FormData(form);
    const more = readLedgerFilter((name) => ((MORE as readonly string[]).includes(name) ? (data.get(name) as string | null) : null));
    const kept = Object.fromEntries(Object.entries(filter).filter(([name]) => !(MORE as readonly string[]).includes(name)));
    setOpen(false);
    go(writeLedgerFilter({ ...more, ...kept }));
  };
  const field = 'field !min-h-[44px] w-full';
  const choice = (name: 'site' | 'car' | 'driver', label: string, all: string, list: Named) => (
    <FormField id={`filter-${name}`} label={label}>
      <Picked id={`filter-${name}`} name={name} none={all} list={list} start={filter[name] ?? ''} className={field} />
    </FormField>
  );
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="min-h-[36px] rounded-[5px] border border-lane bg-card px-2.5 text-[13px] font-semibold text-ink">
        {chosen > 0 ? `Filters: ${chosen}` : 'Filters'}
      </Popover.Trigger>
      <Floating label="Filters" align="end" className="w-[min(360px,calc(100vw-24px))] p-4">
        <form
          onSubmit={(e) => {
            e.preventDefault();
            take(e.currentTarget);
          }}
        >
          <div className="grid grid-cols-2 gap-x-3">
            <FormField id="filter-since" label="From">
              <input id="filter-since" name="since" type="date" className={field} defaultValue={filter.since ?? ''} />
            </FormField>
            <FormField id="filter-until" label="To">
              <input id="filter-until" name="until" type="date" className={field} defaultValue={filter.until ?? ''} />
            </FormField>
          </div>
          {choice('site', 'Site', 'All sites', sites)}
          {choice('car', 'Car', 'All cars', cars)}
          {people.length > 1 || filter.driver ? choice('driver', 'Who drove', 'Everybody', people) : null}
          <FormField id="filter-means" label="Means">
            <select id="filter-means" name="means" className={field} defaultValue={filter.means ?? ''}>
              <option value="">All means</option>
              {MEANS_KINDS.map((m) => (
                <option key={m.kind} value={m.kind}>
                  {m.label}
                </option>
              ))}
            </select>
          </FormField>
          <FormField id="filter-only" label="Only">
            <select id="filter-only" name="only" className={field} defaultValue={filter.only ?? ''}>
              <option value="">All visits</option>
              {LEDGER_ONLY.map((only) => (
                <option key={only} value={only}>
                  {ONLY_LABELS[only]}
                </option>
              ))}
            </select>
          </FormField>
          <FormField id="filter-text" label="Words" hint="Of the site, the network or a note">
            <input id="filter-text" name="text" className={field} defaultValue={filter.text ?? ''} autoComplete="off" maxLength={60} />
          </FormField>
          <div className="mt-1 flex gap-2">
            <button type="submit" className="plate plate-next !min-h-[44px] grow">
              Show these
            </button>
            <button
              type="button"
              className="plate !min-h-[44px]"
              onClick={() => {
                setOpen(false);
                go('');
              }}
            >
              Show all
            </button>
          </div>
        </form>
      </Floating>
    </Popover.Root>
  );
}
