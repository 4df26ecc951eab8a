import { NOT_READ, printDuration } from '@/core/units/print';
import type { StopTimes } from '@/core/visit/stop';

/** The other visits of the same stop, and what the stop lost. */
export function StopNote({ stop, here, site }: { stop: StopTimes; here: string; site: (id: string | null) => string }) {
  const said = (s: number | null) => (s === null ? NOT_READ : printDuration(s));
  return (
    <section aria-labelledby="stop-head" className="mt-3 border-l-4 border-paint bg-card px-4 py-2">
      <h2 id="stop-head" className="text-[15px]">
        One stop of {stop.visits.length} visits
      </h2>
      <p className="text-sm">
        {stop.visits.map((x, i) => (
          <span key={x.id}>
            {i > 0 ? ', then ' : ''}
            {x.id === here ? (
              <b>{site(x.siteId)}</b>
            ) : (
              <a href={`/ledger/${x.id}`} className="text-shake underline">
                {site(x.siteId)}
              </a>
            )}
            {x.ended === 'none' ? ' without a charge' : ''}
          </span>
        ))}
        . Lost at its stalls <span className="num font-semibold">{said(stop.atStalls_s)}</span>, on the way to the next site{' '}
        <span className="num font-semibold">{said(stop.onTheWay_s)}</span>.
      </p>
    </section>
  );
}
