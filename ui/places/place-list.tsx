'use client';
import Link from 'next/link';
import { useRouter, useSearchParams } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { SiteRow } from '@/core/compare/site-row';
import { findScore } from '@/core/records/find-text';
import { kmBetween, type Position } from '@/core/records/place-questions';
import { printPerKWh } from '@/core/units/money';
import { printCount, printDistance, printKW } from '@/core/units/print';
import { printDate, printMonth } from '@/core/units/zoned';
import { Milestone } from '../road/milestone';
import { ForDrivers } from '../road/role';
import { Sketch } from './sketch';
import { whereIAm } from './where-i-am';

const SHOWN = 60;
const LEAST = ['', '50', '100', '150'];

type PlaceListProps = { rows: SiteRow[]; selected: string | null; cars: { id: string; name: string }[]; distance: 'km' | 'mi' };
/** All sites beside a sketch of where they lie. What is chosen above stands in the address. @param distance in which distances are read */
export function PlaceList({ rows, selected, cars, distance }: PlaceListProps) {
  const router = useRouter();
  const query = useSearchParams();
  const [shown, setShown] = useState(SHOWN);
  const [here, setHere] = useState<Position | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const find = query.get('q') ?? '';
  const least = Number(query.get('kW') ?? 0);
  const carId = query.get('car');
  const from = query.get('from');
  const archived = query.get('archived') === '1';
  const address = (change: Record<string, string>, path = '') => {
    const q = new URLSearchParams(query);
    for (const [key, value] of Object.entries(change))
      if (value === '') q.delete(key);
      else q.set(key, value);
    return q.size === 0 && path !== '' ? path : `${path}?${q}`;
  };
  /** Filters that the page itself applies cost no round trip. */
  const set = (change: Record<string, string>) => history.replaceState(null, '', address(change));

  const fits = useMemo(
    () =>
      rows.filter(
        (r) =>
          r.archived === archived &&
          (find.trim() === '' || findScore(find, `${r.name} ${r.networkName}`) > 0) &&
          (r.fitsKW === undefined ? (r.mostKW ?? 0) >= least : (r.fitsKW ?? -1) >= least),
      ),
    [rows, archived, find, least],
  );
  const origin = useMemo(() => chosenOrigin(rows, here, from), [rows, here, from]);
  const sorted = useMemo(() => {
    const km = (r: SiteRow) =>
      origin && r.latitude !== null && r.longitude !== null ? kmBetween(origin, { latitude: r.latitude, longitude: r.longitude }) : null;
    return fits.map((r) => ({ ...r, km: km(r) })).sort((a, b) => (a.km ?? 1e9) - (b.km ?? 1e9) || a.name.localeCompare(b.name));
  }, [fits, origin]);
  const spots = useMemo(
    () =>
      sorted.flatMap((r) => (r.latitude !== null && r.longitude !== null ? [{ id: r.id, name: r.name, latitude: r.latitude, longitude: r.longitude }] : [])),
    [sorted],
  );
  const middle = useMemo(() => origin ?? spots[0] ?? { latitude: 0, longitude: 0 }, [origin, spots]);
  const fromHere = () => {
    setTrouble(null);
    void whereIAm().then(
      (p) => {
        setHere(p);
        set({ from: '' });
      },
      (error: Error) => setTrouble(`${error.message} Distances are from a site instead.`),
    );
  };

  return (
    <section
      aria-labelledby="places-head"
      className="flex min-h-0 min-w-0 grow flex-col bg-card lg:h-[calc(100dvh-52px)] lg:w-[392px] lg:shrink-0 lg:grow-0 lg:border-r lg:border-rule"
    >
      <div className="flex flex-wrap items-center gap-2 border-b-2 border-ink px-4 py-3">
        <h1 id="places-head" className="text-xl">
          Places
        </h1>
        <span className="grow" />
        <Link href="/garage" className="plate">
          Garage
        </Link>
        <ForDrivers>
          <Link href="/places/new" className="plate" aria-keyshortcuts="a">
            Add a site
          </Link>
        </ForDrivers>
        <div className="grid w-full grid-cols-2 gap-2">
          <input
            type="search"
            className="field col-span-2 !min-h-[40px] !text-[15px]"
            placeholder="Find a site or network"
            aria-label="Find a site or network"
            value={find}
            onChange={(e) => set({ q: e.target.value })}
          />
          <select
            className="field !min-h-[40px] !text-[14px]"
            aria-label="Fits the car"
            value={carId ?? ''}
            onChange={(e) => router.replace(address({ car: e.target.value }))}
          >
            <option value="">Any car</option>
            {cars.map((c) => (
              <option key={c.id} value={c.id}>
                Fits {c.name}
              </option>
            ))}
          </select>
          <select
            className="field !min-h-[40px] !text-[14px]"
            aria-label="At least"
            value={query.get('kW') ?? ''}
            onChange={(e) => set({ kW: e.target.value })}
          >
            {LEAST.map((kW) => (
              <option key={kW} value={kW}>
                {kW === '' ? 'Any power' : `${kW} kW and up`}
              </option>
            ))}
          </select>
        </div>
      </div>
      {spots.length > 0 ? (
        <Sketch
          spots={spots}
          middle={middle}
          distance={distance}
          middleName={origin?.name ?? null}
          house={here !== null}
          selected={selected}
          onPick={(id) => router.push(address({}, `/places/${id}`))}
          className="h-[236px] shrink-0 border-b-2 border-ink"
        />
      ) : null}
      <div className="flex flex-wrap items-center gap-x-3 border-b border-rule px-4 py-1.5 text-[13px] text-ink-2">
        <span className="min-w-0 wrap-anywhere">
          {origin ? `Distances from ${origin.name === 'here' ? 'where you are' : origin.name}` : 'No distances yet'}
        </span>
        <span className="grow" />
        <button type="button" className="min-h-[30px] font-semibold text-shake underline" onClick={fromHere}>
          From here
        </button>
        {selected && rows.some((r) => r.id === selected && r.latitude !== null) && origin?.id !== selected ? (
          <button
            type="button"
            className="min-h-[30px] font-semibold text-shake underline"
            onClick={() => {
              setHere(null);
              set({ from: selected });
            }}
          >
            From this site
          </button>
        ) : null}
        {trouble ? (
          <p role="alert" className="w-full font-semibold text-fault">
            {trouble}
          </p>
        ) : null}
      </div>
      <div className="relative min-h-0 grow overflow-y-auto">
        {rows.length === 0 ? (
          <div className="p-6">
            <h2 className="text-lg">No sites yet</h2>
            <p className="mt-2 text-sm text-ink-2">
              Add the sites you charge at, from the sign on the post. What is noted here is at hand at the Stall, with or without a network.
            </p>
            <ForDrivers>
              <Link href="/places/new" className="plate plate-next mt-4">
                Add a site
              </Link>
            </ForDrivers>
          </div>
        ) : (
          <ol>
            {sorted.slice(0, shown).map((r) => (
              <li key={r.id}>
                <Link
                  href={address({}, `/places/${r.id}`)}
                  prefetch={false}
                  data-ledger-row
                  aria-current={r.id === selected ? 'true' : undefined}
                  className={`flex items-center gap-3 border-b border-rule-2 border-l-[5px] px-3 py-[7px] ${r.id === selected ? 'border-l-paint bg-picked' : 'border-l-transparent'}`}
                >
                  <Milestone text={String(r.stalls)} small dark />
                  <span className="min-w-0 grow">
                    <b className="block text-[15px] wrap-anywhere">{r.name}</b>
                    <span className="block text-[13px] text-ink-2 wrap-anywhere">
                      {r.networkName}
                      {r.km !== null && r.id !== origin?.id ? `, ${printDistance(r.km, distance)}` : ''}
                    </span>
                    {r.dangers > 0 ? (
                      <span className="block text-[13px] font-semibold text-fault">danger reported at {printCount(r.dangers, 'stall')}, not cleared</span>
                    ) : null}
                    {r.lastAt === null ? null : <span className="block text-[12.5px] text-ink-2">last here {printDate(r.lastAt, r.zone)}</span>}
                  </span>
                  <span className="shrink-0 text-right">
                    <span className="num block text-[14px]">{power(r)}</span>
                    <span className="num block text-[12.5px] text-ink-2">{seen(r)}</span>
                    {r.price ? (
                      <span className="num block text-[12.5px] text-ink-2">
                        {printPerKWh(r.price.perKWh, r.price.currency)}
                        <span className="sr-only"> per kWh, noted</span> {printMonth(r.price.since.slice(0, 7))}
                      </span>
                    ) : null}
                  </span>
                </Link>
              </li>
            ))}
          </ol>
        )}
        {rows.length > 0 && sorted.length === 0 ? <p className="p-4 text-sm text-ink-2">No site passes these filters.</p> : null}
        {sorted.length > shown ? (
          <button type="button" className="plate m-4" onClick={() => setShown((n) => n + 200)}>
            {printCount(sorted.length - shown, 'more site')}
          </button>
        ) : null}
        {rows.some((r) => r.archived) || archived ? (
          <button
            type="button"
            className="mx-4 my-3 min-h-[30px] text-sm font-semibold text-shake underline"
            onClick={() => set({ archived: archived ? '' : '1' })}
          >
            {archived ? 'Back to the sites in use' : `${printCount(rows.filter((r) => r.archived).length, 'archived site')}`}
          </button>
        ) : null}
      </div>
    </section>
  );
}

const power = (r: SiteRow): string => {
  const kW = r.fitsKW === undefined ? r.mostKW : r.fitsKW;
  return kW === null ? (r.fitsKW === undefined ? ' ' : 'none fits') : printKW(kW);
};
const seen = (r: SiteRow): string =>
  r.visits === 0 ? 'not visited' : r.firstYes + r.firstNo === 0 ? printCount(r.visits, 'visit') : `${r.firstYes}/${r.firstYes + r.firstNo} first try`;

/** Where distances are counted from: where the phone is, the site chosen for it, else the site visited last. */
function chosenOrigin(rows: readonly SiteRow[], here: Position | null, from: string | null): (Position & { id: string | null; name: string }) | null {
  if (here) return { ...here, id: null, name: 'here' };
  const placed = rows.filter((r) => r.latitude !== null && r.longitude !== null);
  const chosen =
    placed.find((r) => r.id === from) ?? placed.reduce<SiteRow | null>((last, r) => ((r.lastAt ?? -1) > (last?.lastAt ?? -1) ? r : last), null) ?? placed[0];
  return chosen ? { latitude: chosen.latitude as number, longitude: chosen.longitude as number, id: chosen.id, name: chosen.name } : null;
}
