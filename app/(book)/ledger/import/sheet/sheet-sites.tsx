'use client';
import { NetworkOfMany } from '@/ui/places/network-of-many';

/** One proposed: two networks may each have a site of one name. */
const siteKey = (name: string, network: string | null): string => JSON.stringify([name, network]);

/** Sites that the file names and nobody here knows: made only where somebody says so, each in a network. */
export function SheetSites(p: {
  proposed: readonly (readonly [name: string, network: string | null])[];
  chosen: Readonly<Record<string, string>>;
  /** Names of those that are here. */
  networks: readonly string[];
  /** Of each that changes its network; `null`: not to be made. */
  onChoose: (all: readonly (readonly [key: string, network: string | null])[]) => void;
}) {
  if (p.proposed.length === 0) return null;
  const all = p.proposed.map(([name, network]) => [siteKey(name, network), network] as const);
  const open = all.filter(([key]) => !(key in p.chosen));
  const blank = all.filter(([key]) => p.chosen[key]?.trim() === '');
  return (
    <section aria-label="Sites not known here" className="mb-4">
      <h2 className="mb-1 text-[16px]">Sites not known here</h2>
      <p className="mb-2 max-w-[640px] text-[13.5px] text-ink-2">
        If one of them is a site of yours under another name, mend the file or the site’s name first. Those that you tick are made, in the network that you
        name.
      </p>
      <datalist id="networks-here">
        {p.networks.map((n) => (
          <option key={n} value={n} />
        ))}
      </datalist>
      {p.proposed.length > 1 ? (
        <button
          type="button"
          className="plate mb-2 !min-h-[44px]"
          onClick={() => p.onChoose(open.length > 0 ? open.map(([key, network]) => [key, network ?? ''] as const) : all.map(([key]) => [key, null] as const))}
        >
          {open.length > 0 ? 'Tick' : 'Untick'} all {all.length}
        </button>
      ) : null}
      <ul>
        {p.proposed
          .map(([name, network]) => [name, network, siteKey(name, network)] as const)
          .map(([name, network, key]) => (
            <li key={key} className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
              <label className="flex min-h-[44px] items-center gap-2 text-[15px]">
                <input
                  type="checkbox"
                  className="size-5 shrink-0 accent-ink"
                  checked={key in p.chosen}
                  onChange={(e) => p.onChoose([[key, e.target.checked ? (network ?? '') : null]])}
                />
                {name}
              </label>
              {key in p.chosen ? (
                <label className="flex min-w-0 flex-wrap items-center gap-2 text-[14px]">
                  network
                  <input
                    type="text"
                    list="networks-here"
                    maxLength={80}
                    className="field !min-h-[44px] min-w-0 sm:!w-[220px]"
                    value={p.chosen[key] ?? ''}
                    onChange={(e) => p.onChoose([[key, e.target.value]])}
                    aria-label={`Network of ${name}`}
                  />
                </label>
              ) : (
                <span className="text-[13px] text-ink-2">{network ?? 'network not told'}</span>
              )}
            </li>
          ))}
      </ul>
      {all.length - open.length > 1 ? <NetworkOfMany onFill={(network) => p.onChoose(blank.map(([key]) => [key, network] as const))} /> : null}
      {blank.length > 0 ? <p className="mt-1 text-[13.5px]">A site needs its network.</p> : null}
    </section>
  );
}
