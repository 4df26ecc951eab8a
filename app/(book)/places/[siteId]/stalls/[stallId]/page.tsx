import { notFound } from 'next/navigation';
import { startsOf } from '@/core/compare/compared-groups';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { figuresRead } from '@/core/compare/measures';
import { stallOrCar, stallOrCarText } from '@/core/compare/stall-or-car';
import { byPost } from '@/core/records/stall-plate';
import { isId } from '@/core/units/id';
import { localDay } from '@/core/units/zoned';
import type { SignedIn } from '@/server/accounts/sessions';
import { now } from '@/server/clock';
import { nameOfRecord, titled } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { namesOf } from '@/server/records/names-for-forms';
import { readRecord, recordsWhere } from '@/server/records/record-tables';
import { timesUsed } from '@/server/records/times-used';
import { compareRows } from '@/server/visits/compare-query';
import { reportedDangers } from '@/server/visits/stall-dangers';
import { EditPage } from '../../../../edit-page';
import { RecordEditor } from '../../../../record-editor';
import { PlacesBeside } from '../../../places-beside';
import { ClearDanger } from './clear-danger';

type Props = { params: Promise<{ siteId: string; stallId: string }> };
const stallTitle = (site: string, stall: string) => `${site}, stall ${stall}`;

export const generateMetadata = async ({ params }: Props) => {
  const { siteId, stallId } = await params;
  return titled('Stall', async (who) => {
    const [site, stall] = await Promise.all([nameOfRecord(who, 'site', siteId), nameOfRecord(who, 'stall', stallId)]);
    return site && (stall ? stallTitle(site, stall) : `Another stall at ${site}`);
  });
};

/** A stall of a site; `new` for another one, which starts from the last of the site. */
export default async function StallPage({ params }: Props) {
  const who = await signedInHere();
  const { siteId, stallId } = await params;
  const site = isId(siteId) ? await readRecord(who.householdId, 'site', siteId) : null;
  if (!site) notFound();
  const stalls = (await recordsWhere(who.householdId, 'stall', 'siteId', [siteId])).sort(byPost);
  const stall = stalls.find((s) => s.id === stallId) ?? null;
  if (!stall && stallId !== 'new') notFound();
  const used = stall ? ((await timesUsed(who.householdId, 'stall')).get(stall.id) ?? 0) : 0;
  const dangers = stall ? await reportedDangers(who.householdId, stall.id) : [];
  const failures = stall && used > 0 ? await whoseFailures(who, stall.id) : [];
  const last = stalls.filter((s) => !s.archived).at(-1)?.fields;
  const start = { siteId, outlets: last?.outlets ?? [{ connector: 'CCS2' }], model: last?.model ?? null };
  return (
    <PlacesBeside who={who} car={undefined} selected={siteId}>
      <EditPage
        title={stall ? stallTitle(site.fields.name, stall.fields.name) : `Another stall at ${site.fields.name}`}
        back={{ href: `/places/${siteId}`, text: 'Back to the site' }}
      >
        {dangers.map(({ visitId, zone, maxSeq, stallId: of, is, on }) => (
          <ClearDanger key={`${visitId} ${is}`} danger={{ is, on }} stallId={of} context={{ visitId, siteId, zone, knownSeq: maxSeq }} />
        ))}
        {failures.length > 0 ? (
          <section aria-labelledby="whose-head" className="mb-4 bg-card px-4 py-3">
            <h2 id="whose-head" className="text-[15px]">
              The stall or the car?
            </h2>
            {failures.map((text) => (
              <p key={text} className="mt-1 text-[14.5px]">
                {text}
              </p>
            ))}
          </section>
        ) : null}
        <RecordEditor
          type="stall"
          record={stall}
          {...(stall ? {} : { start })}
          names={{}}
          today={localDay(now(), site.fields.zone)}
          person={who.name}
          used={used}
          then={`/places/${siteId}`}
        />
      </EditPage>
    </PlacesBeside>
  );
}

/** For each car that failed here: whether it is rather the stall or the car. */
async function whoseFailures(who: SignedIn, stallId: string): Promise<string[]> {
  const asked = { time: 'handshake', mark: 'kW', currency: who.currency } as const;
  const [visits, cars] = await Promise.all([
    compareRows(
      who,
      who.currency,
      readLedgerFilter(() => null),
      figuresRead([], asked, ['car']),
    ),
    namesOf(who.householdId, 'car'),
  ]);
  const starts = visits.flatMap((v) => startsOf([v]).map((s) => ({ ...s, carId: v.carId ?? null })));
  return stallOrCar(starts, stallId).map((x) => stallOrCarText(x, cars.find((c) => c.id === x.carId)?.name ?? 'a car not known here'));
}
