'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { recentSites } from '@/client/store/habits';
import { findScore } from '@/core/records/find-text';
import type { Position } from '@/core/records/place-questions';
import type { MileRecord } from '@/core/records/record-schema';
import { printCount, printDistance } from '@/core/units/print';
import { mayAskWhere, whereIAm } from '@/ui/places/where-i-am';
import { ForDrivers } from '@/ui/road/role';
import { laterParts } from './stall-parts';
import type { Records } from './stall-state';

/** A list that changed its order by itself takes no touch for this long, ms: the finger may be on its way. */
const SETTLE_MS = 400;

type Site = MileRecord<'site'>;
/** Distance of each site from here, km; `null` for one without a position. */
type Distances = (site: Site) => number | null;

/** Measures from here. The arithmetic of the sphere is fetched only by those who ask. */
async function distancesFrom(here: Position): Promise<Distances> {
  const { kmBetween } = await laterParts();
  return ({ fields: { latitude, longitude } }) => (latitude === null || longitude === null ? null : kmBetween(here, { latitude, longitude }));
}

/** The sites of the phone's copy: the nearest first where the position is allowed, else those pulled in at last, on this phone or another of the household. */
export function SiteChoice({
  records,
  empty,
  visits,
  distance,
  onSite,
  onAdd,
}: {
  records: Records;
  /** The household has no sites: not only this phone. */
  empty: boolean;
  /** In which distances are read. */
  distance: 'km' | 'mi';
  /** The household's last visits, newest first. */
  visits: readonly { siteId: string | null }[];
  onSite: (id: string) => void;
  onAdd: () => void;
}) {
  const [find, setFind] = useState('');
  const [distances, setDistances] = useState<{ of: Distances } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const movedAt = useRef(Number.NEGATIVE_INFINITY);
  const measure = async () => {
    setTrouble(null);
    try {
      const of = await distancesFrom(await whereIAm());
      setDistances({ of });
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  // Allowed before: no tap is spent on it, and no trouble told of what nobody asked for.
  useEffect(() => {
    let gone = false;
    void (async () => {
      if (!(await mayAskWhere())) return;
      const of = await distancesFrom(await whereIAm());
      if (!gone) setDistances({ of });
    })().catch(() => {});
    return () => {
      gone = true;
    };
  }, []);

  const sites = useMemo(() => {
    // This phone's own habit goes before the household's.
    const known = [...recentSites(), ...visits.map((v) => v.siteId)];
    const rank = (s: Site) => (distances ? (distances.of(s) ?? Number.MAX_VALUE) : known.includes(s.id) ? known.indexOf(s.id) : known.length);
    return records.site
      .map((site) => ({ site, rank: rank(site), km: distances?.of(site) ?? null }))
      .sort((a, b) => a.rank - b.rank || a.site.fields.name.localeCompare(b.site.fields.name));
  }, [records.site, visits, distances]);
  // Visits or distances came: the order may have changed by itself.
  const order = sites.map(({ site }) => site.id).join();
  const before = useRef(order);
  useEffect(() => {
    if (!order.startsWith(before.current)) movedAt.current = performance.now();
    before.current = order;
  }, [order]);
  const networkName = (id: string) => records.network.find((n) => n.id === id)?.fields.name ?? '';
  const shown = find.trim() === '' ? sites : sites.filter(({ site }) => findScore(find, `${site.fields.name} ${networkName(site.fields.networkId)}`) > 0);
  return (
    <section aria-label="Sites">
      {records.site.length > 6 ? (
        <div className="mb-3 flex gap-2">
          <input
            type="search"
            className="field min-w-0 grow"
            placeholder="Find a site or network"
            aria-label="Find a site or network"
            value={find}
            onChange={(e) => setFind(e.target.value)}
          />
          <button type="button" aria-pressed={distances !== null} className="plate shrink-0" onClick={() => (distances ? setDistances(null) : void measure())}>
            Nearest first
          </button>
        </div>
      ) : null}
      {trouble ? (
        <p role="alert" className="mb-2 text-[14px] font-semibold text-fault">
          {trouble}
        </p>
      ) : null}
      <ul className="grid grid-cols-1 gap-2 sm:grid-cols-2">
        {shown.map(({ site, km }) => (
          <li key={site.id}>
            <button
              type="button"
              onClick={(e) => {
                if (e.timeStamp - movedAt.current > SETTLE_MS) onSite(site.id);
              }}
              className="flex min-h-[56px] w-full items-center gap-3 rounded-lg border-2 border-ink bg-card px-3 py-2 text-left"
            >
              <span className="min-w-0 grow">
                <b className="block text-[16px] wrap-anywhere">{site.fields.name}</b>
                <span className="block text-[13px] text-ink-2 wrap-anywhere">{networkName(site.fields.networkId)}</span>
              </span>
              <span className="shrink-0 text-right text-[13px] text-ink-2">
                {km === null ? null : <span className="num block text-[14px] font-semibold text-ink">{printDistance(km, distance)}</span>}
                {printCount(records.stall.filter((x) => x.fields.siteId === site.id).length, 'stall')}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {shown.length === 0 && records.site.length > 0 ? <p className="text-sm text-ink-2">No site of that name.</p> : null}
      <ForDrivers>
        <button type="button" className={`plate mt-3 !min-h-[52px] w-full ${empty ? 'plate-next' : ''}`} onClick={onAdd}>
          Add a site
        </button>
      </ForDrivers>
    </section>
  );
}
