import Link from 'next/link';
import { notFound } from 'next/navigation';
import { isId } from '@/core/units/id';
import { localDay } from '@/core/units/zoned';
import { now } from '@/server/clock';
import { titledByRecord } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { readRecord, recordsOf, recordsWhere } from '@/server/records/record-tables';
import { ForDrivers } from '@/ui/road/role';
import { ImportTariffs } from './import-tariffs';

export const generateMetadata = titledByRecord('network', 'networkId', 'Prices from a file', (name) => `Prices from a file, ${name}`);

/** Tariffs that a network published, kept as its prices. */
export default async function ImportTariffsPage({ params }: { params: Promise<{ networkId: string }> }) {
  const who = await signedInHere();
  const { networkId } = await params;
  const network = isId(networkId) ? await readRecord(who.householdId, 'network', networkId) : null;
  if (!network) notFound();
  const [sites, plans, providers] = await Promise.all([
    recordsWhere(who.householdId, 'site', 'networkId', [networkId]),
    recordsOf(who.householdId, 'plan'),
    recordsOf(who.householdId, 'provider'),
  ]);
  const payers = [
    ...plans
      .filter((p) => !p.archived && (p.fields.networkId === null || p.fields.networkId === networkId))
      .map((p) => ({ id: p.id, name: `Plan: ${p.fields.name}`, is: 'plan' as const })),
    ...providers.filter((p) => !p.archived).map((p) => ({ id: p.id, name: `Provider: ${p.fields.name}`, is: 'provider' as const })),
  ];
  return (
    <div className="mx-auto w-full max-w-[1100px] px-4 py-4 sm:px-6">
      <Link href={`/places/networks/${networkId}`} className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Back to {network.fields.name}
      </Link>
      <h1 className="mb-2 mt-1 text-[24px]">Prices from a file</h1>
      <p className="mb-4 max-w-[760px] text-[14.5px] text-ink-2">
        Tariffs of OCPI 2.2.1, as {network.fields.name} publishes them. For each you tick, say whom it is for and where it holds: a file does not know your
        plans. What is on file already stays as it is; a price by hand is added on a site’s page.
      </p>
      <ForDrivers>
        <ImportTariffs
          networkId={networkId}
          network={network.fields.name}
          sites={sites.filter((s) => !s.archived).map((s) => ({ id: s.id, name: s.fields.name }))}
          payers={payers}
          today={localDay(now(), sites[0]?.fields.zone ?? who.zone)}
        />
      </ForDrivers>
    </div>
  );
}
