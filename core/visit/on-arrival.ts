import { countBays } from './bays';
import type { Visit } from './derive';

/** Words for the weather that was noted. Bounds of the air: common practice, no source. */
export const WEATHERS = ['rain', 'cold', 'mild', 'hot'] as const;
export type Weather = (typeof WEATHERS)[number];
export const COLD_BELOW_C = 5;
export const HOT_FROM_C = 28;

/** The weather as far as somebody noted it: rain before all, then the air. */
export function weatherNoted(v: Pick<Visit, 'line'>): Weather | null {
  const changes = v.line.flatMap((e) => (e.kind === 'change' ? [e.payload.what] : []));
  if (changes.includes('rain')) return 'rain';
  if (changes.includes('cold')) return 'cold';
  const airC = v.line.find((e) => e.kind === 'pulled_in')?.payload.airC;
  return airC === undefined ? null : airC < COLD_BELOW_C ? 'cold' : airC >= HOT_FROM_C ? 'hot' : 'mild';
}

/** Bays that were looked at on arrival, and those of them that were out of order: by the count, else by the first survey. */
export function baysOnArrival(v: Pick<Visit, 'line'>): { seen: number; outOfOrder: number } | null {
  const seen = v.line.find((e) => e.kind === 'pulled_in')?.payload.seen;
  if (seen?.total !== undefined && seen.total > 0) {
    // All of them free is a look at all of them.
    const out = seen.outOfOrder ?? (seen.free === seen.total ? 0 : null);
    if (out !== null) return { seen: seen.total, outOfOrder: Math.min(out, seen.total) };
  }
  const survey = v.line.find((e) => e.kind === 'survey');
  if (survey?.kind !== 'survey') return null;
  const bays = countBays(survey.payload.stalls);
  return bays.looked === 0 ? null : { seen: bays.looked, outOfOrder: bays.outOfOrder };
}

/** Whether the price could be seen before the start: noted before the first proof of power, or noted to be missing. `null`: nobody noted either. */
export function priceBeforeStart(v: Pick<Visit, 'line' | 'attempts'>): boolean | null {
  const start = v.attempts.find((a) => a.proof)?.proof?.place ?? Number.POSITIVE_INFINITY;
  if (v.line.some((e) => e.kind === 'price_shown' && e.place < start)) return true;
  return v.line.some((e) => e.kind === 'fault' && e.payload.code === 'price_not_shown') ? false : null;
}
