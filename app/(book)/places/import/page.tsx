import type { Metadata } from 'next';
import Link from 'next/link';
import { signedInHere } from '@/server/http/signed-in-here';
import { ForDrivers } from '@/ui/road/role';
import { ImportPlaces } from './import-places';

export const metadata: Metadata = { title: 'Places from a file' };

/** Sites of a file, set against those that are here. */
export default async function ImportPlacesPage() {
  await signedInHere();
  return (
    <div className="mx-auto w-full max-w-[1100px] px-4 py-4 sm:px-6">
      <Link href="/places" className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Back to the places
      </Link>
      <h1 className="mb-2 mt-1 text-[24px]">Places from a file</h1>
      <p className="mb-4 max-w-[760px] text-[14.5px] text-ink-2">
        Sites as GeoJSON, or as Locations of OCPI 2.2.1 with their stalls. Each is set against the places here by its stalls’ ids and its name: what is here is
        added to and not changed, what is not known is made only where you tick it. A position that looks wrong is asked about. A whole file of places and
        prices comes in under{' '}
        <Link href="/settings/restore" className="font-semibold text-shake underline">
          Bring a ledger in
        </Link>
        .
      </p>
      <ForDrivers>
        <ImportPlaces />
      </ForDrivers>
    </div>
  );
}
