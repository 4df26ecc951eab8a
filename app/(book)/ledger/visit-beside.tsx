import Link from 'next/link';
import { momentOf } from '@/core/visit/time-doubt';
import type { VisitPageData } from '@/server/visits/visit-page';
import { VisitSheet } from '@/ui/ledger/visit-sheet';
import { CorrectEvent } from './[visitId]/correct-event';
import { JoinVisit } from './[visitId]/join-visit';
import { WithdrawVisit } from './[visitId]/withdraw-visit';
import type { Around } from './ledger-beside';

/** The page of a visit with what can be done on it. */
export function VisitBeside({ data, around }: { data: VisitPageData; around: Around }) {
  const context = { visitId: data.visit.id, siteId: data.visit.siteId, zone: data.visit.zone, knownSeq: data.maxSeq };
  const line = data.visit.line.map(momentOf);
  return (
    <VisitSheet
      key={data.visit.id}
      page={{ ...data, people: Object.fromEntries(data.people) }}
      around={
        <nav aria-label="Visits before and after" className="no-print flex gap-2">
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
        </nav>
      }
      withdraw={
        <div className="flex flex-wrap gap-2">
          {data.visit.withdrawn ? null : <JoinVisit context={context} at={data.visit.pulledInAt ?? data.visit.lastEventAt} />}
          <WithdrawVisit context={context} withdrawals={data.visit.visitWithdrawals} />
        </div>
      }
      correct={(event) => <CorrectEvent key={event.id} context={context} event={event} line={line} />}
    />
  );
}
