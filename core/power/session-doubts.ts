import type { RecordFields } from '../records/record-schema';
import { plateKW } from '../records/stall-plate';
import type { Visit } from '../visit/derive';
import { wholeOf } from './bands';
import { chargeOf } from './charge-of';
import { isDC } from './most-kw';
import { seriesOf } from './series';
import { energyChecks } from './session-checks';

type Outlets = Pick<RecordFields<'stall'>, 'outlets'>;
/** What is on file of the stalls and the car of a visit; `undefined` and `null` where it is not. */
export type OnFile = { stall: (stallId: string) => Outlets | undefined; usableKWh: number | null };

/** Whether the meter may have stood before an onboard charger, where more is lost on the way into the battery. */
const maybeAC = ({ outlets }: Outlets, connector?: string): boolean => {
  const own = outlets.filter((o) => o.connector === connector);
  return (own.length > 0 ? own : outlets).some((o) => !isDC(o.connector));
};

/**
 * What looks wrong about the energy of whole sessions of a visit beside what is on file, each with its arithmetic: no reading by itself shows
 * it. Where a stall has several plugs and which one was not noted, the one that allows most is taken. It changes no figure.
 */
export const sessionDoubts = (visit: Visit, onFile: OnFile): string[] =>
  visit.attempts.flatMap((a) => {
    const charge = chargeOf(a, visit);
    if (!charge) return [];
    const series = seriesOf(charge);
    const stall = a.stallId ? onFile.stall(a.stallId) : undefined;
    const checks = energyChecks(
      { series, whole: wholeOf(series, { usableKWh: null, kWhPer100km: null }) },
      stall ? plateKW(stall, a.connectorId) : null,
      onFile.usableKWh,
      stall && maybeAC(stall, a.connectorId) ? 'ac' : 'dc',
    );
    return checks.flatMap((c) => (c.fine === false ? [`${c.name}: ${c.arithmetic}.`] : []));
  });
