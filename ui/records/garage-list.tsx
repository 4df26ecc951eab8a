'use client';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { findScore } from '@/core/records/find-text';
import { GARAGE_TYPES, type GarageRow, type GarageType } from '@/core/records/garage-row';
import { TYPES } from '@/core/records/types/registry';
import { printCount } from '@/core/units/print';
import { ForDrivers } from '../road/role';

export type UsedRow = GarageRow & { used: number };

/** One list of the garage: searched, with what is put away apart, and how often each was used. */
export function GarageList({ type, rows, selected }: { type: GarageType; rows: UsedRow[]; selected: string | null }) {
  const query = useSearchParams();
  const find = query.get('q') ?? '';
  const archived = query.get('archived') === '1';
  const set = (key: string, value: string) => {
    const q = new URLSearchParams(query);
    if (value === '') q.delete(key);
    else q.set(key, value);
    history.replaceState(null, '', `?${q}`);
  };
  const names = TYPES[type];
  const away = rows.filter((r) => r.archived).length;
  const shown = rows.filter((r) => r.archived === archived && (find.trim() === '' || findScore(find, `${r.name} ${r.line}`) > 0));
  return (
    <section
      aria-labelledby="garage-head"
      className="flex min-h-0 min-w-0 grow flex-col bg-card lg:h-[calc(100dvh-52px)] lg:w-[392px] lg:shrink-0 lg:grow-0 lg:border-r lg:border-rule"
    >
      <div className="border-b-2 border-ink px-4 py-3">
        <div className="flex items-center gap-2">
          <h1 id="garage-head" className="text-xl">
            Garage
          </h1>
          <span className="grow" />
          <Link href="/places" className="plate">
            Places
          </Link>
          <ForDrivers>
            <Link href={`/garage/${type}/new`} className="plate">
              Add
            </Link>
          </ForDrivers>
        </div>
        <nav aria-label="Garage" className="mt-3 flex flex-wrap gap-x-4 gap-y-1">
          {GARAGE_TYPES.map((t) => (
            <Link
              key={t}
              href={`/garage/${t}`}
              aria-current={t === type ? 'page' : undefined}
              className={`inline-flex min-h-[30px] items-center border-b-[3px] text-[14.5px] font-semibold ${t === type ? 'border-paint' : 'border-transparent text-ink-2'}`}
            >
              {TYPES[t].many}
            </Link>
          ))}
        </nav>
        {rows.length > 5 || find !== '' ? (
          <input
            type="search"
            className="field mt-2 !min-h-[40px] !text-[15px]"
            placeholder={`Find in ${names.many.toLowerCase()}`}
            aria-label={`Find in ${names.many.toLowerCase()}`}
            value={find}
            onChange={(e) => set('q', e.target.value)}
          />
        ) : null}
      </div>
      <div className="relative min-h-0 grow overflow-y-auto">
        <ol>
          {shown.map((r) => (
            <li key={r.id}>
              <Link
                href={`/garage/${type}/${r.id}${query.size > 0 ? `?${query}` : ''}`}
                prefetch={false}
                data-ledger-row
                aria-current={r.id === selected ? 'true' : undefined}
                className={`block border-b border-rule-2 border-l-[5px] px-3 py-2 ${r.id === selected ? 'border-l-paint bg-picked' : 'border-l-transparent'}`}
              >
                <span className="flex items-baseline gap-3">
                  <b className="line-clamp-2 min-w-0 grow text-[15px] wrap-anywhere">{r.name}</b>
                  <span className="num shrink-0 text-[12.5px] text-ink-2">{r.used === 0 ? 'not used' : printCount(r.used, 'visit')}</span>
                </span>
                <span className="block text-[13px] text-ink-2">{r.line}</span>
                {r.heed ? <span className="block text-[13px] font-semibold text-fault">{r.heed}</span> : null}
              </Link>
            </li>
          ))}
        </ol>
        {rows.length === away && !archived ? (
          <div className="p-6">
            <h2 className="text-lg">No {names.many.toLowerCase()} yet</h2>
            <p className="mt-2 text-sm text-ink-2">{EMPTY[type]}</p>
            <ForDrivers>
              <Link href={`/garage/${type}/new`} className="plate plate-next mt-4">
                Add {names.one.toLowerCase()}
              </Link>
            </ForDrivers>
          </div>
        ) : shown.length === 0 ? (
          <p className="p-4 text-sm text-ink-2">Nothing of that name.</p>
        ) : null}
        {away > 0 || archived ? (
          <button
            type="button"
            className="mx-4 my-3 min-h-[30px] text-sm font-semibold text-shake underline"
            onClick={() => set('archived', archived ? '' : '1')}
          >
            {archived ? 'Back to those in use' : `${away} archived`}
          </button>
        ) : null}
      </div>
    </section>
  );
}

const EMPTY: Record<GarageType, string> = {
  car: 'With a car, each site says which stalls it can use and at most how many kW.',
  adapter: 'With its amps and volts noted, each site says whether it may go between.',
  means: 'Cards, apps and tags by name. Numbers of cards and accounts are never kept.',
  plan: 'Memberships and what they cost a month.',
  enrolment: 'Autocharge and Plug & Charge are set up once per network: the steps at home, those at the stall, and what shows that each worked.',
  network: 'Networks come with the sites you add.',
  provider: 'Who bills, when that is not the network.',
  rate: 'Bills of other currencies are summed apart until a dated rate is noted here; the sum then names it.',
  otherprice: 'What charging costs at home, what fuel costs, what an hour of waiting is worth: what a stop is held against.',
};
