import Link from 'next/link';
import { writeLedgerFilter } from '@/core/compare/ledger-filter';
import type { PlaceRecord } from '@/core/compare/place-record';
import { methodWords } from '@/core/compare/place-words';
import type { MileRecord } from '@/core/records/record-schema';
import { printCount } from '@/core/units/print';
import { printDate } from '@/core/units/zoned';
import { ForDrivers } from '../road/role';
import { PlaceSections, RecordRows } from './place-record';
import { Rows, Section } from './section';

export type NetworkSheetData = {
  network: MileRecord<'network'>;
  sites: { id: string; name: string; archived: boolean }[];
  record: PlaceRecord;
  faults: { label: string; siteName: string; at: number; zone: string; visitId: string }[];
};

/** The page of a network: what its visits say, and how they were counted. */
export function NetworkSheet({ page, zone }: { page: NetworkSheetData; zone: string }) {
  const { network, sites, record, faults } = page;
  const filter = { network: network.id };
  const nameOf = (id: string) => sites.find((s) => s.id === id)?.name ?? 'a site not known here';
  const visits = record.all?.allVisits ?? 0;
  return (
    <article aria-labelledby="network-head" className="px-4 py-4 sm:px-6">
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div className="min-w-0">
          <p className="text-[12.5px] font-semibold text-ink-2">Network, {printCount(sites.filter((s) => !s.archived).length, 'site')}</p>
          <h1 id="network-head" className="mt-1 text-[26px]">
            {network.fields.name}
          </h1>
        </div>
        <span className="grow" />
        <div className="no-print flex flex-wrap gap-2">
          <Link href="/places" className="plate lg:!hidden">
            All sites
          </Link>
          <Link href={`/ledger${writeLedgerFilter({ ...filter, time: 'handshake', mark: 'kW' })}`} className="plate">
            Its visits, {visits}
          </Link>
          <Link href={`/compare${writeLedgerFilter({ ...filter, time: 'handshake', mark: 'kW' }) || '?'}&by=site`} className="plate">
            Compare its sites
          </Link>
          <ForDrivers>
            <Link href={`/places/networks/${network.id}/prices`} className="plate">
              Prices from a file
            </Link>
          </ForDrivers>
          <a href={`/api/v1/pdf/networks/${network.id}`} download className="plate">
            PDF<span className="sr-only"> of this network’s record</span>
          </a>
        </div>
      </div>
      <div className="grid gap-x-6 gap-y-7 md:grid-cols-2">
        <Section head="What the visits say" beside={printCount(visits, 'visit')}>
          <RecordRows filter={filter} record={record} empty="Nobody of this household charged there yet." />
        </Section>
        <PlaceSections filter={filter} record={record} choose="site" nameOf={nameOf} hrefOf={(id) => `/places/${id}`} />
        <Section head="Faults, newest first">
          <Rows
            rows={faults.map((x) => [
              <Link key="what" href={`/ledger/${x.visitId}`} className="inline-block min-h-6 underline decoration-rule underline-offset-4">
                {x.label}, {x.siteName}
              </Link>,
              <span key="when" className="num text-[13px]">
                {printDate(x.at, x.zone)}
              </span>,
            ])}
            empty="None recorded."
          />
        </Section>
      </div>
      <p className="mt-6 max-w-[760px] border-t border-rule pt-3 text-[13px] text-ink-2">{methodWords(record, visits, zone)}</p>
    </article>
  );
}
