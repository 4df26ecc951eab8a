import type { Metadata } from 'next';
import Link from 'next/link';
import { SHEET_NAMES, type SheetName } from '@/server/formats/export-sheets';
import { signedInHere } from '@/server/http/signed-in-here';
import { OcpiFile } from './ocpi-file';

export const metadata: Metadata = { title: 'Take it along' };

const WHAT: Readonly<Record<SheetName, string>> = {
  visits: 'a line each, with what was derived and why a figure is not known',
  attempts: 'every try to start, with all its times',
  events: 'the record itself: what was tapped and typed, as it stands today',
  readings: 'battery, power, energy and cost as read',
  bills: 'what was charged, and its state',
  sites: 'places with their networks and limits',
  tariffs: 'prices on file, with their OCPI objects',
};

const OTHERS = [
  ['places.zip', 'Places and prices', 'without visits, people or cars: a start for somebody else, under Bring a ledger in'],
  ['sites.geojson', 'Sites as GeoJSON', 'RFC 7946, for maps'],
] as const;
/** Documents of OCPI, and what one thing in them is called. */
const OCPI = [
  ['ocpi-locations.json', 'Sites as OCPI Locations', 'OCPI 2.2.1, with their stalls and plugs', 'Location'],
  ['ocpi-cdrs.json', 'Charges as OCPI CDRs', 'those that were billed; what the standard cannot say is named in it', 'CDR'],
  ['ocpi-sessions.json', 'Charges as OCPI Sessions', 'billed or not; failed attempts cannot be said, and are named', 'Session'],
] as const;

/** The household's ledger as files. */
export default async function ExportPage() {
  const who = await signedInHere();
  return (
    <div className="mx-auto w-full max-w-xl p-6 max-sm:px-4">
      <Link href="/settings" className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Back to the settings
      </Link>
      <h1 className="mt-1 text-[22px]">Take it along</h1>
      <h2 className="mt-4 text-[17px]">All of it</h2>
      <p className="mt-1 text-sm text-ink-2">
        One zip: <span className="num">ledger.json</span> with every record and event as it was kept, and the photos. It comes back whole under{' '}
        <Link href="/settings/restore" className="font-semibold text-shake underline">
          Bring a ledger in
        </Link>
        , here or anywhere.{' '}
        <a href="/api/v1/schema/ledger.json" download className="font-semibold text-shake underline">
          What is in it
        </a>
        , as JSON Schema.
      </p>
      {who.role === 'owner' ? (
        <a href="/api/v1/household/export" download className="plate mt-2 inline-flex !min-h-[44px]">
          The whole ledger, ZIP
        </a>
      ) : (
        <p className="mt-2 text-sm">Only the owner takes the whole household along.</p>
      )}
      <h2 className="mt-6 text-[17px]">For others and for programs</h2>
      <ul className="mt-2 bg-card">
        {OTHERS.map(([name, label, what]) => (
          <li key={name} className="flex items-center gap-3 border-b border-rule-2 px-3 py-2">
            <span className="grow">
              <b className="block font-semibold">{label}</b>
              <span className="text-[13px] text-ink-2">{what}</span>
            </span>
            <a href={`/api/v1/export/${name}`} download className="plate !min-h-[44px]">
              {name.endsWith('.zip') ? 'ZIP' : 'JSON'}
              <span className="sr-only"> of {label}</span>
            </a>
          </li>
        ))}
        {OCPI.map(([name, label, what, one]) => (
          <li key={name} className="flex flex-wrap items-center gap-3 border-b border-rule-2 px-3 py-2">
            <span className="min-w-0 flex-1">
              <b className="block font-semibold">{label}</b>
              <span className="text-[13px] text-ink-2">{what}</span>
            </span>
            <OcpiFile name={name} label={label} one={one} />
          </li>
        ))}
      </ul>
      <h2 className="mt-6 text-[17px]">As sheets</h2>
      <p className="mt-1 text-sm text-ink-2">
        CSV for any spreadsheet: UTF-8, times with their offset, units in the headings. What is not known is empty, and says why in the column beside it. Visits
        that are private to somebody else are not in it.
      </p>
      <ul className="mt-3 bg-card">
        {SHEET_NAMES.map((name) => (
          <li key={name} className="flex items-center gap-3 border-b border-rule-2 px-3 py-2">
            <span className="grow">
              <b className="block font-semibold first-letter:uppercase">{name}</b>
              <span className="text-[13px] text-ink-2">{WHAT[name]}</span>
            </span>
            <a href={`/api/v1/export/${name}.csv`} download className="plate !min-h-[44px]">
              CSV<span className="sr-only"> of {name}</span>
            </a>
          </li>
        ))}
      </ul>
    </div>
  );
}
