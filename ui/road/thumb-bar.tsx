import { PLACES } from './places';

/**
 * The places under the thumb of a phone. Plain links: a page is entered whole, and the Stall carries no router.
 * @param here address of the place that shows it
 */
export function ThumbBar({ here }: { here: string }) {
  return (
    <nav
      aria-label="Places, below"
      className="no-print sticky bottom-0 z-20 grid grid-cols-5 border-t-2 border-ink bg-card pb-[env(safe-area-inset-bottom)] sm:hidden"
    >
      {PLACES.map((p) => {
        const on = here === p.href;
        return (
          <a
            key={p.href}
            href={p.href}
            className={`flex min-h-[56px] flex-col items-center justify-center border-t-4 text-sm font-bold ${on ? 'border-paint' : 'border-transparent text-ink-2'}`}
            aria-current={on ? 'page' : undefined}
          >
            {p.name}
          </a>
        );
      })}
    </nav>
  );
}
