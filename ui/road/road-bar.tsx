'use client';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { FIND_EVENT } from './keys';
import { PLACES } from './places';
import { Stone } from './stone';

/** The road along the top of a wide screen: the places, and the one plate that starts a visit. */
export function RoadBar({ person }: { person: string }) {
  const path = usePathname();
  return (
    <header className="no-print relative flex h-[52px] shrink-0 items-center gap-5 bg-asphalt px-4 text-line sm:max-md:gap-3 md:px-5">
      <div className="lane-dashes absolute inset-x-0 bottom-[6px] h-[2px] opacity-55" aria-hidden="true" />
      <a href="/ledger" className="flex min-h-[44px] shrink-0 items-center gap-2 text-[17px] font-extrabold tracking-tight">
        <Stone />
        Mile Ledger
      </a>
      <nav aria-label="Places" className="hidden shrink-0 gap-5 sm:flex sm:max-md:gap-3">
        {PLACES.map((p) => {
          const on = path.startsWith(p.href);
          const inner = (
            <>
              <span>{p.name}</span>
              <span className="num hidden text-[10px] text-[#9aa5aa] md:inline" aria-hidden="true">
                {p.key}
              </span>
              {on ? <span className="absolute inset-x-0 -bottom-[10px] z-10 h-[5px] bg-paint" aria-hidden="true" /> : null}
            </>
          );
          const className = `relative flex items-baseline gap-1.5 px-0.5 py-1.5 text-sm font-semibold ${on ? 'text-white' : 'text-line-2'}`;
          // The Stall is a static shell of its own: it is entered whole, never as a payload.
          return p.shell ? (
            <a key={p.href} href={p.href} className={className} aria-keyshortcuts={p.key}>
              {inner}
            </a>
          ) : (
            <Link key={p.href} href={p.href} className={className} aria-current={on ? 'page' : undefined} aria-keyshortcuts={p.key}>
              {inner}
            </Link>
          );
        })}
      </nav>
      <span className="grow" />
      <button
        type="button"
        className="flex min-h-[44px] shrink-0 items-center gap-1.5 text-sm font-semibold text-line-2"
        aria-keyshortcuts="Control+K"
        onClick={() => dispatchEvent(new Event(FIND_EVENT))}
      >
        Find
        <span className="num hidden text-[10px] text-[#9aa5aa] md:inline" aria-hidden="true">
          Ctrl K
        </span>
      </button>
      <Link href="/settings" className="truncate text-sm leading-[44px] font-semibold text-line-2" aria-current={path === '/settings' ? 'page' : undefined}>
        {person}
      </Link>
      <a href="/stall" className="plate plate-next !min-h-[30px] hidden shrink-0 !py-0.5 sm:inline-flex" aria-keyshortcuts="n">
        Pull in{' '}
        <span className="num rounded-[3px] border border-current px-1 text-[10.5px]" aria-hidden="true">
          N
        </span>
      </a>
    </header>
  );
}
