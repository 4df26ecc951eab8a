import { type Band, bandOf, tensRead } from './bands';
import { type Battery, bindsIn, minutesFor } from './expected';
import { type LimitName, type Limits, limitsOf, type Setting } from './limits';
import type { Series } from './series';

const CAR_ALONE: Record<'dc' | 'ac', LimitName> = { dc: 'car_curve', ac: 'onboard' };
/** What the post promises this car: its curve and booster, the plate, plate amps × volts. Not derating, sharing or a weak cable. */
const WORD: Record<'dc' | 'ac', readonly LimitName[]> = {
  dc: ['car_curve', 'booster', 'stall_plate', 'stall_amps'],
  ac: ['onboard', 'stall_plate', 'ac_line'],
};

export type Pace = { band: Band } & (
  | { took_min: null }
  | {
      took_min: number;
      car_min: number | null;
      /** Minutes of the car alone over those it took. Neither is cut at 1. */
      pace: number | null;
      word_min: number | null;
      /** Minutes at what car and plate allow over those it took: what a stall is judged by. */
      keepsItsWord: number | null;
      /** The driver's adapter would have bound an honest stall, too. */
      excusedBy: readonly LimitName[];
      keepsItsWordExcused: number | null;
    }
);

/** The limits that pace and word are judged by, compiled once for a car, stall and adapter. */
export type PaceLimits = { all: Limits; car: Limits; word: Limits; excused: Limits; battery: Battery };
export function paceLimits(setting: Setting, battery: Battery): PaceLimits {
  const { kind } = setting.stall;
  return {
    all: limitsOf(setting),
    car: limitsOf(setting, new Set([CAR_ALONE[kind]])),
    word: limitsOf(setting, new Set(WORD[kind])),
    excused: limitsOf(setting, new Set([...WORD[kind], 'adapter_amps'])),
    battery,
  };
}

const over = (minutes: number | null, took: number): number | null => (minutes === null || took === 0 ? null : minutes / took);

/** Pace and word of a stretch as it was charged. */
export function paceOf(series: Series, from: number, to: number, by: PaceLimits): Pace {
  const band = bandOf(series, from, to, { usableKWh: null, kWhPer100km: null });
  if (band.covered === 'none') return { band, took_min: null };
  const { minutes: took_min, coveredFrom, coveredTo } = band;
  const stretch = (limits: Limits) => minutesFor(limits, coveredFrom, coveredTo, by.battery);
  const [car_min, word_min] = [stretch(by.car), stretch(by.word)];
  const bound = bindsIn(by.all, 'adapter_amps', coveredFrom, coveredTo);
  return {
    band,
    took_min,
    car_min,
    pace: over(car_min, took_min),
    word_min,
    keepsItsWord: over(word_min, took_min),
    excusedBy: bound ? ['adapter_amps'] : [],
    keepsItsWordExcused: bound ? over(stretch(by.excused), took_min) : null,
  };
}

/** From the first to the last level read, and for each ten of it; `null` when fewer than two levels were read. */
export function sessionPace(series: Series, by: PaceLimits): { session: Pace; bands: Pace[] } | null {
  const [first, last] = [series.soc?.y[0], series.soc?.y.at(-1)];
  if (first === undefined || last === undefined || first >= last) return null;
  return { session: paceOf(series, first, last, by), bands: tensRead(series).map(([from, to]) => paceOf(series, from, to, by)) };
}
