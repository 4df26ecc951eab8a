import { isDC } from '@/core/power/most-kw';
import type { OwnCurve } from '@/core/power/own-curve';
import { curveKnown, curvesLearnt, type PastSession } from '@/core/power/past-sessions';
import type { Spread } from '@/core/power/projection';
import { spreadOf } from '@/core/power/projection-error';
import { CURVE_CLASSES, type CurveClass } from '@/core/power/session-looks';
import { AC_EFFICIENCY } from '@/core/power/setting-of';
import { projectionRatios } from '@/core/power/site-outlook';
import { type UsableBattery, usableBattery } from '@/core/power/usable-battery';
import type { MileRecord } from '@/core/records/record-schema';
import type { Who } from '../accounts/who';
import { readRecord } from '../records/record-tables';
import { pastSessions } from './past-sessions';

const MOST_PAST = 2_000;

export type CarCurve = {
  car: MileRecord<'car'>;
  classes: { klass: CurveClass; learnt: OwnCurve }[];
  /** At direct current: what it takes of alternating is no point of the curve. */
  looks: { socPct: number; kW: number; hindered: boolean }[];
  usable: UsableBattery;
  /** How projections of its charges were met. */
  spread: Spread | null;
};

/** What a car has shown of itself: its curve by class, and what its battery holds. `null`: no such car here. */
export async function carCurve(who: Who, carId: string): Promise<CarCurve | null> {
  const car = await readRecord(who.householdId, 'car', carId);
  if (!car) return null;
  const past = await pastSessions(who, { car: carId, time: 'handshake', mark: 'kW' }, MOST_PAST);
  const learnt = curvesLearnt(past);
  const usual = learnt('usual');
  return {
    car,
    classes: CURVE_CLASSES.map((klass) => ({ klass, learnt: learnt(klass) })),
    looks: past
      .filter((p) => p.stands && isDC(p.stands.outlet.connector))
      .flatMap((p) => p.looks.looks.map(([, socPct, kW]) => ({ socPct, kW, hindered: p.looks.hindered }))),
    usable: usableBattery(past.flatMap(chargeOf)),
    spread: spreadOf(projectionRatios(past, curveKnown(usual, car.fields.curve), 'dc')),
  };
}

function chargeOf({ looks, stands }: PastSession) {
  const { from, to, kWh } = looks;
  if (from === null || to === null || kWh === null) return [];
  return [{ deltaPct: to - from, kWh, ...(stands && !isDC(stands.outlet.connector) ? { efficiency: AC_EFFICIENCY } : {}) }];
}
