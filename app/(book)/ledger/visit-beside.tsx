import type { VisitPageData } from '@/server/visits/visit-page';
import { VisitSheet } from '@/ui/ledger/visit-sheet';
import { CorrectEvent } from './[visitId]/correct-event';
import { WithdrawVisit } from './[visitId]/withdraw-visit';

/** The page of a visit with what can be done on it. */
export function VisitBeside({ data }: { data: VisitPageData }) {
  const context = { visitId: data.visit.id, zone: data.visit.zone, knownSeq: data.maxSeq };
  return (
    <VisitSheet
      key={data.visit.id}
      page={{ ...data, people: Object.fromEntries(data.people) }}
      withdraw={<WithdrawVisit context={context} withdrawals={data.visit.visitWithdrawals} />}
      correct={(event) => <CorrectEvent key={event.id} context={context} event={event} />}
    />
  );
}
