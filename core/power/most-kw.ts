import { carDCkW } from '../records/car-kw';
import { acOf, type Connector } from '../records/connector';
import type { RecordFields } from '../records/record-schema';
import { boostedVolts } from './limits';

type Car = RecordFields<'car'>;
type Outlet = RecordFields<'stall'>['outlets'][number];
export type Limit = 'plate' | 'derated' | 'cabinet' | 'car' | 'amps' | 'booster' | 'onboard charger' | 'phases';
/** At most so many kW, and what sets it; or why nothing at all, by volts or amps. */
export type MostKW = { can: true; kW: number; by: Limit } | { can: false; why: 'volts' | 'amps'; text: string };

/** Limits besides the outlet and the car; `null` where nothing is known to limit. */
export type Around = { deratedKW: number | null; cabinetKW: number | null; adapter: { maxA: number | null; maxV: number | null } | null };

/**
 * Pack volts at 100 % and 0 %: as typed, else both from the volt class, which is coarse and meant for telling a
 * 400 V stall from an 800 V car.
 */
export function packVolts(car: Pick<Car, 'packV0' | 'packV100' | 'voltClass'>): { v0: number; v100: number } | null {
  const v100 = car.packV100 ?? car.voltClass;
  return v100 === null ? null : { v0: car.packV0 ?? v100, v100 };
}

/**
 * The most power this outlet can give this car at its best battery level, alone on its cabinet: the least of all that
 * is known to limit. Current × volts uses the pack's volts at 100 %, the kindest reading of "at most".
 */
export function mostKW(car: Car, outlet: Outlet, around: Around): MostKW {
  const limits: [Limit, number][] = [['plate', outlet.ratedKW]];
  if (around.deratedKW !== null) limits.push(['derated', around.deratedKW]);
  if (around.cabinetKW !== null) limits.push(['cabinet', around.cabinetKW]);
  const ac = acOf(outlet.connector);
  const stop = ac ? acLimits(car, outlet, ac, around, limits) : dcLimits(car, outlet, around, limits);
  if (stop) return stop;
  const [by, kW] = limits.reduce((least, next) => (next[1] < least[1] ? next : least));
  return { can: true, kW, by };
}

function dcLimits(car: Car, outlet: Outlet, around: Around, limits: [Limit, number][]): MostKW | null {
  const carKW = carDCkW(car);
  if (carKW !== null) limits.push(['car', carKW]);
  const pack = packVolts(car);
  if (!pack) return null;
  const topV = Math.min(outlet.maxV ?? Number.POSITIVE_INFINITY, around.adapter?.maxV ?? Number.POSITIVE_INFINITY);
  const whose = (outlet.maxV ?? Number.POSITIVE_INFINITY) <= topV ? 'the stall' : 'the adapter';
  const boosted = pack.v100 > topV;
  if (boosted) {
    if (car.boosterKW === null) return { can: false, why: 'volts', text: `${whose} goes up to ${topV} V, the pack to ${pack.v100} V` };
    limits.push(['booster', car.boosterKW]);
  }
  if (outlet.minV !== null && pack.v100 < outlet.minV)
    return { can: false, why: 'volts', text: `the stall gives no less than ${outlet.minV} V, the pack has ${pack.v100} V at most` };
  const atV = boosted ? boostedVolts(car.boosterV, topV) : pack.v100;
  if (outlet.maxA !== null) limits.push(['amps', (outlet.maxA * atV) / 1000]);
  // An adapter does not limit the current by itself: what may flow must be within its rating.
  const adapterA = around.adapter?.maxA ?? null;
  if (adapterA === null) return null;
  const lowV = boosted ? atV : pack.v0;
  const mayFlow = Math.min(outlet.maxA ?? Number.POSITIVE_INFINITY, (lasting(limits) * 1000) / lowV);
  return mayFlow > adapterA + 0.5 ? overAdapter(adapterA, mayFlow) : null;
}

function acLimits(car: Car, outlet: Outlet, ac: { phases: 1 | 3; phaseV: number }, around: Around, limits: [Limit, number][]): MostKW | null {
  const stallPhases = outlet.phases ?? ac.phases;
  const amps = outlet.maxA ?? (outlet.ratedKW * 1000) / (stallPhases * ac.phaseV);
  const phases = Math.min(stallPhases, car.acPhases ?? stallPhases);
  limits.push([phases < stallPhases ? 'phases' : 'amps', (phases * ac.phaseV * amps) / 1000]);
  if (car.maxACkW !== null) limits.push(['onboard charger', car.maxACkW]);
  const adapterA = around.adapter?.maxA ?? null;
  if (adapterA === null) return null;
  const mayFlow = Math.min(amps, (lasting(limits) * 1000) / (phases * ac.phaseV));
  return mayFlow > adapterA + 0.5 ? overAdapter(adapterA, mayFlow) : null;
}

/** The least that always limits, kW: a derate may be gone in the middle of a charge, and then more flows. */
const lasting = (limits: readonly [Limit, number][]): number => Math.min(...limits.flatMap(([by, kW]) => (by === 'derated' ? [] : [kW])));

const overAdapter = (rated: number, mayFlow: number): MostKW => ({
  can: false,
  why: 'amps',
  text: `the adapter is rated for ${rated} A, up to ${Math.round(mayFlow)} A may flow`,
});

/** True for a connector that carries direct current. */
export const isDC = (connector: Connector): boolean => acOf(connector) === null;
