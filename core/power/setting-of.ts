import { acOf, fitsInto } from '../records/connector';
import type { RecordFields } from '../records/record-schema';
import type { Battery } from './expected';
import type { PowerCurve, Setting } from './limits';
import { packVolts } from './most-kw';

type Car = RecordFields<'car'>;
type Stall = RecordFields<'stall'>;
type Outlet = Stall['outlets'][number];
export type AtStall = {
  car: Car;
  stall: Stall;
  outlet: Outlet;
  adapter: Pick<RecordFields<'adapter'>, 'maxA' | 'maxV'> | null;
  /** What to hold the car to; its typed curve unless another was learnt. */
  curve: PowerCurve;
  /** A neighbour draws from the same cabinet. */
  paired: boolean;
  /** Seen to be derated to so many kW. */
  deratedKW: number | null;
};

/** Of what an AC meter counts, the share that reaches the battery: the onboard charger's loss. Common practice, no source. */
export const AC_EFFICIENCY = 0.9;

/** A screen may show a little more than a plate says. */
const SHOWN_MORE = 1.05;
/**
 * The outlet that was plugged in: as noted, else what the adapter goes into. Of several that fit the car one of alternating current
 * only where no more power was shown than it and the onboard charger can, else the strongest. The first where none fits.
 * @param shownKW the most that a screen showed; `null` where none was read
 */
export function outletOf(
  stall: Pick<Stall, 'outlets'>,
  car: Pick<Car, 'connectors' | 'maxACkW'>,
  connector: string | null,
  adapterFrom: string | null,
  shownKW: number | null = null,
): Outlet {
  const { outlets } = stall;
  const noted = outlets.find((o) => o.connector === connector) ?? outlets.find((o) => o.connector === adapterFrom);
  if (noted) return noted;
  const into = fitsInto(car.connectors);
  const fitting = outlets.filter((o) => into.has(o.connector)).sort((a, b) => b.ratedKW - a.ratedKW);
  const slow = fitting.find((o) => acOf(o.connector) && shownKW !== null && shownKW <= SHOWN_MORE * Math.min(o.ratedKW, car.maxACkW ?? o.ratedKW));
  return slow ?? fitting[0] ?? (outlets[0] as Outlet);
}

/** What each of two cars gets when both draw from a cabinet: half of it; `null` where it is not noted or not shared. */
export function shareOf(stall: Pick<Stall, 'sharing' | 'cabinetKW'>, plateKW: number): number | null {
  if (stall.sharing === 'shared') return (stall.cabinetKW ?? plateKW) / 2;
  return null;
}

/** The limits of a car at a stall as far as records tell. Pack volts by volt class where they are not typed. */
export function settingOf({ car, stall, outlet, adapter, curve, paired, deratedKW }: AtStall): { setting: Setting; battery: Battery } {
  const ac = acOf(outlet.connector);
  const volts = packVolts(car);
  const phases = outlet.phases ?? ac?.phases ?? null;
  return {
    setting: {
      car: {
        V0: volts?.v0,
        V100: volts?.v100,
        curve,
        boosterKW: car.boosterKW,
        boosterV: car.boosterV,
        onboardKW: car.maxACkW,
        acPhases: car.acPhases,
      },
      stall: {
        kind: ac ? 'ac' : 'dc',
        plateKW: outlet.ratedKW,
        maxA: ac && phases ? (outlet.maxA ?? (outlet.ratedKW * 1000) / (phases * ac.phaseV)) : outlet.maxA,
        maxV: outlet.maxV,
        deratedKW,
        paired,
        shareKW: shareOf(stall, outlet.ratedKW),
        phases,
        V: ac?.phaseV,
      },
      adapter: adapter && { maxA: adapter.maxA, maxV: adapter.maxV },
    },
    battery: { usableKWh: car.usableKWh, ...(ac ? { efficiency: AC_EFFICIENCY } : {}) },
  };
}

/**
 * Whether a stall can be held to its word by this car: what the car itself takes must be known, its curve for direct current, its
 * onboard charger for alternating. Else the car's own limit would be laid to the stall.
 */
export const canJudge = ({ car, stall }: Setting): boolean => (stall.kind === 'ac' ? typeof car.onboardKW === 'number' : (car.curve?.length ?? 0) > 0);
