import { isDC } from '@/core/power/most-kw';
import type { OwnCurve } from '@/core/power/own-curve';
import { learntCurve, type PastSession } from '@/core/power/past-sessions';
import { CURVE_CLASSES, type CurveClass } from '@/core/power/session-looks';
import { type UsableBattery, usableBattery } from '@/core/power/usable-battery';
import type { MileRecord } from '@/core/records/record-schema';
import type { Who } from '../accounts/who';
import { readRecord } from '../records/record-tables';
import { pastSessions } from './past-sessions';

const MOST_PAST = 2_000;
/** Of what an AC meter counts, the share that reaches the battery. Common practice, no source. */
const AC_EFFICIENCY = 0.9;

export type CarCurve = {
  car: MileRecord<'car'>;
  classes: { klass: CurveClass; learnt: OwnCurve }[];
  looks: { socPct: number; kW: number; hindered: boolean }[];
  usable: UsableBattery;
};

/** What a car has shown of itself: its curve by class, and what its battery holds. `null`: no such car here. */
export async function carCurve(who: Who, carId: string): Promise<CarCurve | null> {
  const car = await readRecord(who.householdId, 'car', carId);
  if (!car) return null;
  const past = await pastSessions(who, { car: carId, time: 'handshake', mark: 'kW' }, MOST_PAST);
  return {
    car,
    classes: CURVE_CLASSES.map((klass) => ({ klass, learnt: learntCurve(past, klass) })),
    looks: past.flatMap((p) => p.looks.looks.map(([, socPct, kW]) => ({ socPct, kW, hindered: p.looks.hindered }))),
    usable: usableBattery(past.flatMap(chargeOf)),
  };
}

function chargeOf({ looks, stands }: PastSession) {
  const { from, to, kWh } = looks;
  if (from === null || to === null || kWh === null) return [];
  return [{ deltaPct: to - from, kWh, ...(stands && !isDC(stands.outlet.connector) ? { efficiency: AC_EFFICIENCY } : {}) }];
}
