import { isId } from '@/core/units/id';
import { calling } from '@/server/api/caller';
import { type ListName, rowsOf } from '@/server/api/lists';
import { problem } from '@/server/api/problem';
import { tagged } from '@/server/api/tagged';
import { sheetNames } from '@/server/formats/export-sheets';
import { eventsOfVisits } from '@/server/visits/event-rows';
import { visitSeen } from '@/server/visits/visit-seen';

export const dynamic = 'force-dynamic';

/** One visit with all that is listed of it. */
export const GET = calling<{ visitId: string }>('read', [], async (caller, request, { visitId }) => {
  if (!isId(visitId) || !(await visitSeen(caller, visitId))) return problem(404, 'There is no such visit.');
  return tagged(caller, request, async () => {
    const [byVisit, names] = [await eventsOfVisits(caller.householdId, [visitId]), await sheetNames(caller)];
    const of = (name: ListName) => rowsOf(name, visitId, byVisit.get(visitId) ?? [], names);
    return { visit: of('visits')[0], attempts: of('attempts'), readings: of('readings'), bills: of('bills'), events: of('events') };
  });
});
