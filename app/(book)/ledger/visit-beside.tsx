import Link from 'next/link';
import type { DistanceUnit } from '@/core/units/distance';
import { localDay } from '@/core/units/zoned';
import { attemptChoices } from '@/core/visit/billed';
import { momentOf } from '@/core/visit/time-doubt';
import type { visitPage } from '@/server/visits/visit-page';
import { VisitMarks } from '@/ui/ledger/marking';
import { PrivateVisitSheet } from '@/ui/ledger/private-visit';
import { VisitSheet } from '@/ui/ledger/visit-sheet';
import { ForDrivers } from '@/ui/road/role';
import { AddBill } from './[visitId]/add-bill';
import { CorrectEvent } from './[visitId]/correct-event';
import { JoinVisit } from './[visitId]/join-visit';
import { ReleaseHold } from './[visitId]/release-hold';
import { WithdrawVisit } from './[visitId]/withdraw-visit';
import type { Around } from './ledger-beside';

/** The page of a visit with what can be done on it. */
export function VisitBeside({
  data,
  around,
  distance,
  currency,
  whole = false,
}: {
  data: NonNullable<Awaited<ReturnType<typeof visitPage>>>;
  around: Around;
  distance: DistanceUnit;
  /** Of the household. */
  currency: string;
  /** Whether all of a very long record is shown. */
  whole?: boolean;
}) {
  const beside = (
    <nav aria-label="Visits before and after" className="no-print flex flex-wrap gap-2">
      {around.newer ? (
        <Link href={around.newer} className="plate" prefetch={false} scroll={false}>
          Newer
        </Link>
      ) : null}
      {around.older ? (
        <Link href={around.older} className="plate" prefetch={false} scroll={false}>
          Older
        </Link>
      ) : null}
      {'privateVisit' in data ? null : (
        <a href={`/api/v1/pdf/visits/${data.visit.id}`} download className="plate">
          PDF<span className="sr-only"> of this visit</span>
        </a>
      )}
    </nav>
  );
  if ('privateVisit' in data) return <PrivateVisitSheet key={data.privateVisit.id} visit={data.privateVisit} around={beside} />;
  const context = { visitId: data.visit.id, siteId: data.visit.siteId, zone: data.visit.zone, knownSeq: data.maxSeq };
  const line = data.visit.line.map(momentOf);
  const people = data.people.filter((p) => p.leftAt === null).map((p) => ({ id: p.personId, name: p.name }));
  return (
    <VisitSheet
      key={data.visit.id}
      page={data}
      distance={distance}
      whole={whole}
      around={beside}
      withdraw={
        <ForDrivers>
          <div className="flex flex-wrap gap-2">
            {data.visit.withdrawn ? null : <JoinVisit context={context} at={data.visit.pulledInAt ?? data.visit.lastEventAt} />}
            <WithdrawVisit context={context} withdrawals={data.visit.visitWithdrawals} />
          </div>
        </ForDrivers>
      }
      marks={
        <ForDrivers>
          <VisitMarks visitId={data.visit.id} {...data.visit.marks} />
        </ForDrivers>
      }
      addBill={
        <ForDrivers>
          <AddBill context={context} currency={currency} attempts={attemptChoices(data.visit.attempts, data.visit.line, data.names.stall)} />
        </ForDrivers>
      }
      release={(hold) => (
        <ForDrivers>
          <ReleaseHold context={context} hold={hold.id} since={localDay(hold.t, data.visit.zone)} today={data.today} />
        </ForDrivers>
      )}
      correct={(event) => (
        <ForDrivers key={event.id}>
          <CorrectEvent context={context} event={event} line={line} people={people} distance={distance} />
        </ForDrivers>
      )}
    />
  );
}
