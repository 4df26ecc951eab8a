import { type Battery, expectedStretch, levelAfter } from './expected';
import type { Limits } from './limits';
import { feesBetween, type SimplePrice } from './simple-price';

export type StayCost = {
  leaveSocPct: number;
  charging_min: number;
  idle_min: number;
  idleBilled_min: number;
  meter_kWh: number;
  energyMoney: number;
  timeMoney: number;
  idleMoney: number;
  money: number;
};

/** What it costs to come back after so many minutes: charging until the target or the return, then idle. */
export function stayCost(
  limits: Limits,
  battery: Battery,
  at: { now: number; target: number; returnIn_min: number; connected_min?: number | undefined },
  price: SimplePrice,
): StayCost {
  const whole = at.target > at.now ? expectedStretch(limits, at.now, at.target, battery).minutes : 0;
  const reached = whole !== null && whole <= at.returnIn_min;
  const leaveSocPct = reached ? Math.max(at.now, at.target) : Math.min(at.target, levelAfter(limits, at.now, at.returnIn_min, battery));
  const charging_min = reached ? whole : at.returnIn_min;
  const idle_min = at.returnIn_min - charging_min;
  const idleBilled_min = Math.max(0, idle_min - (price.idleGraceMin ?? 0));
  const { meter_kWh } = expectedStretch(limits, at.now, leaveSocPct, battery);
  const connected = at.connected_min ?? 0;
  const energyMoney = (price.perKWh ?? 0) * meter_kWh;
  const timeMoney = (price.perMin ?? 0) * charging_min + feesBetween(price, connected, connected + at.returnIn_min);
  const idleMoney = (price.idlePerMin ?? 0) * idleBilled_min;
  return { leaveSocPct, charging_min, idle_min, idleBilled_min, meter_kWh, energyMoney, timeMoney, idleMoney, money: energyMoney + timeMoney + idleMoney };
}
