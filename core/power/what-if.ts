import { type RangeBy, rangeOf } from './bands';
import { type Battery, expectedStretch, type HeldStretch, levelAfter } from './expected';
import { type Limits, limitsOf, type Setting } from './limits';

/** A stop that is only thought of. */
export type WhatIf = {
  name: string;
  from: number;
  to: number;
  /** Of charging; `null` where it never gets there. */
  minutes: number | null;
  mean_kW: number | null;
  meter_kWh: number;
  range_km: number | null;
  heldBackBy: readonly HeldStretch[];
  /** What else it takes: handshake of a second stop. */
  besides_min: number;
  stops: number;
  at: 'here' | 'faster';
};
export type WhatIfAsked = {
  setting: Setting;
  battery: Battery;
  from: number;
  to: number;
  range: RangeBy;
  /** The quickest post on file, to hold it against. */
  faster: { setting: Setting; name: string } | null;
  /** What a second stop costs before power flows, minutes. */
  handshake_min: number;
};

const LONGER_MIN = 10;

function stop(name: string, limits: Limits, asked: WhatIfAsked, from: number, to: number): WhatIf {
  const { minutes, mean_kW, meter_kWh, heldBackBy } = expectedStretch(limits, from, to, asked.battery);
  return { name, from, to, minutes, mean_kW, meter_kWh, range_km: rangeOf(to - from, asked.range), heldBackBy, besides_min: 0, stops: 1, at: 'here' };
}

/**
 * What a stop would take, against ten minutes longer, a faster post, and two short stops for one long: each half of it
 * from the same low level, where a car charges quickest, with one more handshake.
 */
export function whatIf(asked: WhatIfAsked): WhatIf[] {
  const limits = limitsOf(asked.setting);
  const { from, to } = asked;
  const first = stop('This stop', limits, asked, from, to);
  const out = [first];
  if (first.minutes !== null) {
    const longer = levelAfter(limits, from, first.minutes + LONGER_MIN, asked.battery);
    if (longer > to + 0.5) out.push(stop(longer >= 100 ? 'Until full' : 'Ten minutes longer', limits, asked, from, longer));
  }
  if (asked.faster) out.push({ ...stop(asked.faster.name, limitsOf(asked.faster.setting), asked, from, to), at: 'faster' });
  const half = stop('Two short stops', limits, asked, from, from + (to - from) / 2);
  out.push({
    ...half,
    minutes: half.minutes === null ? null : half.minutes * 2,
    meter_kWh: half.meter_kWh * 2,
    range_km: half.range_km === null ? null : half.range_km * 2,
    besides_min: asked.handshake_min,
    stops: 2,
  });
  return out;
}
