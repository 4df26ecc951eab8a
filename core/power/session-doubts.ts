import type { RecordFields } from '../records/record-schema';
import { plateKW } from '../records/stall-plate';
import type { Visit } from '../visit/derive';
import { AC_KW } from '../visit/sense-check';
import { sessionChecks } from './session-checks';
import { sessionPower } from './session-power';

/** What is on file of the stalls and the car of a visit; `undefined` and `null` where it is not. */
export type OnFile = { stall: (stallId: string) => Pick<RecordFields<'stall'>, 'outlets'> | undefined; usableKWh: number | null };

/** Checks of a whole session against what is on file: no reading by itself shows them. */
const OF_THE_SESSION: ReadonlySet<string> = new Set(['kWh against time', 'kWh against battery', 'A digit']);

/** What looks wrong about the sessions of a visit, each with its arithmetic. It changes no figure. */
export const sessionDoubts = (visit: Visit, onFile: OnFile): string[] =>
  visit.attempts.flatMap((a) => {
    const session = sessionPower(visit, a, null, { points: [], by: null }, { usableKWh: null, kWhPer100km: null });
    if (!session) return [];
    const stall = a.stallId ? onFile.stall(a.stallId) : undefined;
    const plate = stall ? plateKW(stall, a.connectorId) : null;
    // Of a post that may give alternating current more is lost on the way into the battery.
    const checks = sessionChecks(session, a, plate, onFile.usableKWh, plate !== null && plate <= AC_KW ? 'ac' : 'dc');
    return checks.flatMap((c) => (c.fine === false && OF_THE_SESSION.has(c.name) ? [`${c.name}: ${c.arithmetic}.`] : []));
  });
