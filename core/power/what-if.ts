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
  /** The other post by its id; `null`: here. */
  elsewhere: string | null;
};
export type WhatIfAsked = {
  setting: Setting;
  battery: Battery;
  from: number;
  to: number;
  range: RangeBy;
  /** Other posts that the car can use: the quickest is shown, where one is quicker. Of equals the first. */
  others: readonly { id: string; setting: Setting; battery: Battery; name: string }[];
  /** What a second stop costs before power flows, minutes. */
  handshake_min: number;
};

const LONGER_MIN = 10;
/** Posts that differ by less are as quick. */
const WORTH_MIN = 0.1;

function stop(name: string, limits: Limits, battery: Battery, range: RangeBy, from: number, to: number): WhatIf {
  const { minutes, mean_kW, meter_kWh, heldBackBy } = expectedStretch(limits, from, to, battery);
  return { name, from, to, minutes, mean_kW, meter_kWh, range_km: rangeOf(to - from, range), heldBackBy, besides_min: 0, stops: 1, elsewhere: null };
}

/** The quickest of the other posts for the same stretch, by what each really gives this car and not by its plate. */
function quicker({ others, range, from, to }: WhatIfAsked, than: number | null): WhatIf | null {
  let best: WhatIf | null = null;
  for (const { id, setting, battery, name } of others) {
    const there = { ...stop(name, limitsOf(setting), battery, range, from, to), elsewhere: id };
    if (there.minutes !== null && there.minutes < (best?.minutes ?? than ?? Number.POSITIVE_INFINITY) - WORTH_MIN) best = there;
  }
  return best;
}

/**
 * What a stop would take, against ten minutes longer, the quickest other post, and two short stops for one long: each half of it
 * from the same low level, where a car charges quickest, with one more handshake.
 */
export function whatIf(asked: WhatIfAsked): WhatIf[] {
  const limits = limitsOf(asked.setting);
  const { from, to, battery, range } = asked;
  const here = (name: string, until: number) => stop(name, limits, battery, range, from, until);
  const first = here('This stop', to);
  const out = [first];
  if (first.minutes !== null) {
    const longer = levelAfter(limits, from, first.minutes + LONGER_MIN, battery);
    if (longer > to + 0.5) out.push(here(longer >= 100 ? 'Until full' : 'Ten minutes longer', longer));
  }
  const other = quicker(asked, first.minutes);
  if (other) out.push(other);
  const half = here('Two short stops', from + (to - from) / 2);
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
