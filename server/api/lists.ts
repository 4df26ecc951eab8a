import { VISIT_SHEETS } from '@/core/formats/ledger-tables';
import { rowObject } from '@/core/formats/row-object';
import { deriveVisit, type Visit } from '@/core/visit/derive';
import type { StoredEvent } from '@/core/visit/event';
import { payloadProblem } from '@/core/visit/payloads';
import { inRecordOrder } from '@/core/visit/record-order';
import { sheetNames } from '../formats/export-sheets';
import { eventsOfVisits } from '../visits/event-rows';
import { calling } from './caller';
import { pageAsk, VISIT_NAMES, visitsOfPage, wrongInPage } from './pages';
import { tagged } from './tagged';

/** What is listed of visits. */
export const LISTS = ['visits', 'attempts', 'readings', 'bills', 'events'] as const;
export type ListName = (typeof LISTS)[number];

const idsOf = (v: Visit) => ({ site_id: v.siteId, car_id: v.carId, driver_id: v.driverId });

/** The rows of a visit, as objects. Events are the record itself, as they travelled, taken back or not. */
export function rowsOf(name: ListName, id: string, events: readonly StoredEvent[], names: Awaited<ReturnType<typeof sheetNames>>): object[] {
  if (name === 'events') return inRecordOrder(events);
  const visit = deriveVisit(id, events, payloadProblem);
  const { columns, rows } = VISIT_SHEETS[name];
  return rows(visit, names).map((row) => ({ ...rowObject(columns, row), ...(name === 'visits' ? idsOf(visit) : {}) }));
}

/** A route that lists what there is of visits, a page at a time. */
export const listing = (name: ListName) =>
  calling('read', wrongInPage(VISIT_NAMES), async (caller, request) => {
    const ask = pageAsk(request);
    return tagged(caller, request, async () => {
      const { ids, next } = await visitsOfPage(caller, ask);
      const [byVisit, names] = [await eventsOfVisits(caller.householdId, ids), await sheetNames(caller)];
      return { items: ids.flatMap((id) => rowsOf(name, id, byVisit.get(id) ?? [], names)), next };
    });
  });
