import { chargingEnd } from '../visit/attempt-times';
import type { Attempt } from '../visit/attempts/attempt';
import { sessionEnergy } from '../visit/delivered';
import type { Visit } from '../visit/derive';
import type { Charge, SeriesReading } from './series';

const seconds = (from: number, to: number): number => (to - from) / 1000;

/**
 * A session of a visit as a series is made of it: seconds from its proof of power, pauses off the clock, the meter at
 * its end where it was read or billed. `null` without power, or when only its day is known.
 */
export function chargeOf(a: Attempt, visit: Pick<Visit, 'billed' | 'line' | 'attempts'>): Charge | null {
  const { proof } = a;
  if (!proof || proof.precision === 'day') return null;
  const t = (ms: number) => seconds(proof.t, ms);
  const readings = a.readings.flatMap((r): SeriesReading[] => {
    if (r.mark.precision === 'day') return [];
    const { screen, socPct, kW, kWh, V, A } = r;
    return [
      {
        t_s: t(r.mark.t),
        from: screen,
        ...(socPct === undefined ? {} : { socPct }),
        ...(kW === undefined ? {} : { kW }),
        ...(kWh === undefined ? {} : { kWh: Number(kWh) }),
        ...(V === undefined ? {} : { V }),
        ...(A === undefined ? {} : { A }),
      },
    ];
  });
  // The battery on arrival is the level at the start of the first session: nothing has flowed before it.
  const arrival = visit.attempts.find((x) => x.proof)?.n === a.n ? visit.line.find((e) => e.kind === 'pulled_in')?.payload.socPct : undefined;
  if (arrival !== undefined && !readings.some((r) => r.socPct !== undefined && r.t_s <= 0))
    readings.unshift({ t_s: -1, from: mostlyFrom(readings), socPct: arrival });
  const end = chargingEnd(a);
  const energy = sessionEnergy(a, visit.billed);
  return {
    readings,
    pauses: [...a.pauses.map((p): [number, number] => [t(p.from.t), t(p.to.t)])],
    end: end && end.precision !== 'day' && end.t >= proof.t ? { t_s: t(end.t), ...(energy && !energy.atLeast ? { kWh: Number(energy.value) } : {}) } : null,
  };
}

/** The screen that the battery was read from more often: the arrival's level joins it. */
function mostlyFrom(readings: readonly SeriesReading[]): 'stall' | 'car' {
  const count = (from: 'stall' | 'car') => readings.filter((r) => r.from === from && r.socPct !== undefined).length;
  return count('stall') > count('car') ? 'stall' : 'car';
}
