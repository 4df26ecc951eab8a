'use client';
import { useDeferredValue, useMemo, useState } from 'react';
import { BREACH_WORDS, JSON_WORDS } from '@/core/formats/breach-words';
import { findScore } from '@/core/records/find-text';
import { printCount } from '@/core/units/print';
import type { PlaceRow, PlacesPreview } from '@/server/formats/import-places';
import type { PlaceChoice } from '@/server/formats/place-records';
import { ChooseFile, refusedText, useFileWork } from '@/ui/forms/file-work';
import { LeftOut } from '@/ui/forms/left-out';
import { sendFile } from '@/ui/forms/send-file';
import { useSome } from '@/ui/forms/some-at-a-time';
import { NetworkOfMany } from '@/ui/places/network-of-many';
import { fieldLabel } from '@/ui/records/record-fields';

/** Rows of one request: of a register's thousands one sees how far it is. */
const AT_ONCE = 500;
/** Rows that are seen at a look; and those of a register of a country rather than of somebody’s places. */
const [FEW, MANY] = [20, 500] as const;
const IS = { new: 'new', adds: 'adds to what is here', here: 'is here already', away: 'is here, put away: it comes into use again' } as const;
const ASK: Readonly<Record<string, string>> = {
  swapped: 'Latitude and longitude look swapped.',
  at_sea: 'This position is at sea.',
  far: 'This position is over 1,500 km from every site here.',
  moved: 'Here it stands over a kilometre away.',
};
const REFUSED: Readonly<Record<string, string>> = {
  no_places: 'It holds neither GeoJSON nor OCPI Locations. Tariffs come in on the page of their network.',
  not_geojson: 'It is no FeatureCollection and no Feature.',
  crs: 'Its coordinates are of another system than WGS 84.',
  ...JSON_WORDS,
};
const CODE: Readonly<Record<string, string>> = {
  ...BREACH_WORDS,
  feature: 'is no Feature',
  geometry: 'is no point',
  coordinates: 'has no two numbers',
  no_name: 'has no name',
  removed: 'was removed by the network',
  connector_unknown: 'is a plug that is not known here',
  no_connector: 'has no plug that is known here',
  lacks_posts: 'says more than is kept with a site: what it says of its posts beyond what comes in is left out',
  lacks_all: 'says more than is kept with a site: what it says beyond what comes in is left out',
};
type Choice = Omit<PlaceChoice, 'pointer'>;

/** A row's choice as it is proposed: what is plain is ticked, what is asked is not. */
const proposed = (r: PlaceRow): Choice | null => (r.is === 'here' || r.is === 'away' || r.asks.length > 0 ? null : firstOf(r));

/** What is chosen as one is ticked. */
const firstOf = (r: PlaceRow): Choice => ({
  network: r.network ?? '',
  position: r.latitude === null ? 'none' : r.better ? 'turned' : 'file',
  siteId: r.siteId,
});

type NotTaken = { pointer: string; name: string; reason: string };

/** Chooses a file, shows what would come of each site, asks, and takes in what is ticked. */
export function ImportPlaces() {
  const [file, setFile] = useState<File | null>(null);
  const [seen, setSeen] = useState<PlacesPreview | null>(null);
  const [choices, setChoices] = useState<Readonly<Record<string, Choice>>>({});
  const { busy, said, say, working, reading } = useFileWork('places');
  const [notTaken, setNotTaken] = useState<NotTaken[]>([]);
  const [called, setCalled] = useState('');

  const send = async (of: File, some: readonly PlaceChoice[] | null): Promise<(PlacesPreview & { taken?: number; notTaken?: NotTaken[] }) | null> => {
    const { ok, body } = await sendFile('/api/v1/import/places', of, { choices: some });
    if (ok) return body;
    say(refusedText(body, REFUSED));
    return null;
  };
  const show = (preview: PlacesPreview) => {
    setSeen(preview);
    setCalled('');
    const ticked = preview.rows.length > MANY ? [] : preview.rows;
    setChoices(Object.fromEntries(ticked.flatMap((r) => (proposed(r) ? [[r.pointer, proposed(r) as Choice]] : []))));
  };
  const choose = (all: readonly (readonly [pointer: string, Choice | null])[]) =>
    setChoices((before) => {
      const next = { ...before };
      for (const [pointer, c] of all)
        if (c === null) delete next[pointer];
        else next[pointer] = c;
      return next;
    });
  const read = (of: File) =>
    reading(of, async () => {
      const preview = await send(of, null);
      if (preview) show(preview);
    });
  const takeIn = () =>
    working(async () => {
      if (!file || !seen) return;
      const all = Object.entries(choices).map(([pointer, c]) => ({ pointer, ...c }));
      let taken = 0;
      setNotTaken([]);
      for (let at = 0; at < all.length; at += AT_ONCE) {
        const told = await send(file, all.slice(at, at + AT_ONCE));
        if (!told) return;
        taken += told.taken ?? 0;
        setNotTaken((before) => [...before, ...(told.notTaken ?? [])]);
        // What was not ticked stays so.
        setSeen(told);
        choose(all.slice(at, at + AT_ONCE).map(({ pointer }) => [pointer, null] as const));
        say(
          at + AT_ONCE < all.length
            ? `${printCount(taken, 'record')} taken in, more to come …`
            : `${printCount(taken, 'record')} taken in: sites, stalls and networks.`,
        );
      }
    }, 'takes in');
  const coming = Object.keys(choices).length;
  // What is asked, or was put away, is ticked one by one.
  // Of tens of thousands it takes a moment: what is typed does not wait for it.
  const wanted = useDeferredValue(called);
  const found = useMemo(() => (seen?.rows ?? []).filter((r) => wanted.trim() === '' || findScore(wanted, `${r.name} ${r.network ?? ''}`) > 0), [seen, wanted]);
  const { some, more } = useSome(found, 'place');
  const plain = found.filter((r) => proposed(r) !== null);
  const open = plain.filter((r) => !choices[r.pointer]);
  const nameOf = (pointer: string | undefined) => seen?.rows.find((r) => r.pointer === pointer)?.name ?? '';
  const blank = Object.entries(choices).filter(([, c]) => c.siteId === null && c.network.trim() === '');
  return (
    <>
      <ChooseFile
        label="The file, GeoJSON or OCPI"
        accept=".geojson,.json,application/geo+json,application/json"
        busy={busy}
        said={said}
        onChoose={(chosen) => {
          setFile(chosen);
          setSeen(null);
          setNotTaken([]);
          if (chosen) void read(chosen);
        }}
      />
      {seen ? (
        <>
          <LeftOut
            items={[
              ...notTaken.map(({ pointer, name, reason }) => ({ pointer, reason: `${name} was not taken: ${reason}` })),
              ...seen.breaches.map((b) => ({ pointer: b.pointer, reason: CODE[b.code] ?? b.code.replaceAll('_', ' ') })),
            ]}
            unlisted={seen.unlisted}
          />
          <datalist id="networks-here">
            {seen.networks.map((n) => (
              <option key={n} value={n} />
            ))}
          </datalist>
          {seen.rows.length > FEW ? (
            <label className="mb-2 block max-w-[420px] text-[14px] font-semibold">
              Find a place or network of the file
              <input type="search" className="field mt-0.5 !min-h-[44px]" value={called} onChange={(e) => setCalled(e.target.value)} />
              {seen.rows.length > MANY ? (
                <span className="mt-1 block font-normal text-ink-2">
                  It has {printCount(seen.rows.length, 'place')}. {coming === 0 ? 'Nothing is ticked yet: find those that you stop at.' : `${coming} ticked.`}
                </span>
              ) : null}
            </label>
          ) : null}
          {plain.length > 1 ? (
            <button
              type="button"
              className="plate mb-2 !min-h-[44px]"
              disabled={busy}
              onClick={() => choose(open.length > 0 ? open.map((r) => [r.pointer, firstOf(r)] as const) : plain.map((r) => [r.pointer, null] as const))}
            >
              {open.length > 0 ? 'Tick' : 'Untick'} all {plain.length}
            </button>
          ) : null}
          <ul className="border-t-2 border-ink bg-card">
            {some.map((r) => (
              <Row key={r.pointer} row={r} choice={choices[r.pointer] ?? null} disabled={busy} onChoose={(c) => choose([[r.pointer, c]])} />
            ))}
          </ul>
          {more}
          {seen.rows.length > 0 && found.length === 0 ? <p className="text-[15px]">None of its places is called so.</p> : null}
          {seen.rows.length === 0 ? <p className="text-[15px]">No site of it can be read.</p> : null}
          {blank.length > 1 ? (
            <NetworkOfMany disabled={busy} onFill={(network) => choose(blank.map(([pointer, c]) => [pointer, { ...c, network }] as const))} />
          ) : null}
          <button
            type="button"
            className="plate plate-next mt-4 !min-h-[44px]"
            disabled={busy || coming === 0 || blank.length > 0}
            onClick={() => void takeIn()}
          >
            Take in {printCount(coming, 'place')}
          </button>
          {blank.length > 0 ? <p className="mt-1 text-[13.5px]">A new site needs its network: {nameOf(blank[0]?.[0])}.</p> : null}
        </>
      ) : null}
    </>
  );
}

function Row({ row: r, choice, disabled, onChoose }: { row: PlaceRow; choice: Choice | null; disabled: boolean; onChoose: (c: Choice | null) => void }) {
  const where = r.latitude === null || r.longitude === null ? 'position not known' : `${r.latitude}, ${r.longitude}`;
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule-2 px-3 py-2">
      <label className="flex min-h-[44px] min-w-0 grow basis-[16rem] items-center gap-3">
        <input
          type="checkbox"
          className="size-5 shrink-0 accent-ink"
          disabled={disabled || r.is === 'here'}
          checked={choice !== null}
          onChange={(e) => onChoose(e.target.checked ? firstOf(r) : null)}
        />
        <span className="min-w-0">
          <b className="block break-words font-semibold">{r.name}</b>
          <span className="text-[13px] text-ink-2">
            {r.asks.includes('moved') ? 'is here' : IS[r.is]}, {where}
            {r.stalls > 0 ? `, ${printCount(r.stalls, 'new stall')}` : ''}
            {r.fills.length > 0 ? `, with ${r.fills.map((f) => fieldLabel('site', f).toLowerCase()).join(', ')}` : ''}
          </span>
        </span>
      </label>
      {choice?.siteId === null ? (
        <label className="flex min-w-0 flex-wrap items-center gap-2 text-[14px]">
          network
          <input
            list="networks-here"
            maxLength={80}
            className="field !min-h-[44px] min-w-0 sm:!w-[220px]"
            value={choice.network}
            disabled={disabled}
            aria-label={`Network of ${r.name}`}
            onChange={(e) => onChoose({ ...choice, network: e.target.value })}
          />
        </label>
      ) : (
        <span className="text-[13.5px] text-ink-2">{r.network ?? 'network not told'}</span>
      )}
      {r.asks.length > 0 ? (
        <div className="min-w-0 basis-full pl-8 text-[14px]">
          <p>{r.asks.map((a) => ASK[a] ?? a).join(' ')}</p>
          {choice ? (
            <label className="flex min-w-0 flex-wrap items-center gap-2">
              position
              <select
                className="field !min-h-[44px] !w-auto min-w-0 max-w-full"
                value={r.siteId && choice.siteId === null ? 'own' : choice.position}
                disabled={disabled}
                aria-label={`Position of ${r.name}`}
                onChange={(e) =>
                  onChoose(
                    e.target.value === 'own'
                      ? { ...choice, position: 'file', siteId: null }
                      : { ...choice, position: e.target.value as Choice['position'], siteId: r.siteId },
                  )
                }
              >
                {r.better ? (
                  <option value="turned">
                    turned round: {r.better[1]}, {r.better[0]}
                  </option>
                ) : null}
                <option value="file">as in the file: {where}</option>
                <option value="none">{r.siteId ? 'as it is here' : 'leave it open'}</option>
                {r.siteId && r.asks.includes('moved') ? <option value="own">another place of that name, in the file’s position</option> : null}
              </select>
            </label>
          ) : null}
        </div>
      ) : null}
    </li>
  );
}
