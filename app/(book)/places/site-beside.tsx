import Link from 'next/link';
import { writeLedgerFilter } from '@/core/compare/ledger-filter';
import type { SitePage } from '@/server/places/site-page';
import { CarChoice } from '@/ui/places/car-choice';
import { SiteSheet } from '@/ui/places/site-sheet';
import { ForDrivers } from '@/ui/road/role';

/** The page of a site with what can be done on it. */
export function SiteBeside({ page }: { page: SitePage }) {
  return (
    <SiteSheet
      page={page}
      carChoice={<CarChoice cars={page.cars} carId={page.carId} />}
      actions={
        <div className="flex flex-wrap gap-2">
          <Link href="/places" className="plate lg:!hidden">
            All sites
          </Link>
          <ForDrivers>
            <Link href={`/places/${page.site.id}/change`} className="plate">
              Change
            </Link>
            <Link href={`/places/${page.site.id}/stalls/new`} className="plate">
              Add a stall
            </Link>
          </ForDrivers>
          <Link href={`/ledger${writeLedgerFilter({ site: page.site.id, time: 'handshake', mark: 'kW' })}`} className="plate">
            Its visits, {page.visits}
          </Link>
          <a href={`/api/v1/pdf/sites/${page.site.id}`} download className="plate">
            PDF<span className="sr-only"> of this site’s record</span>
          </a>
          {page.site.archived ? null : (
            <ForDrivers>
              <a href={`/stall?site=${page.site.id}`} className="plate plate-next">
                Pull in here
              </a>
            </ForDrivers>
          )}
        </div>
      }
    />
  );
}
