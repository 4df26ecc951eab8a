import type { Segment } from './tape';

/**
 * The outline of a session's energy paint: kW over time from its readings, held level before the first and after
 * the last of the stretch. Empty when no kW was read: then nothing is drawn that was not seen.
 */
export function powerProfile(segment: Segment): { t: number; kW: number }[] {
  const points = (segment.kW ?? []).filter((p) => p.t >= segment.from && p.t <= segment.to);
  const all = segment.kW ?? [];
  const before = all.filter((p) => p.t < segment.from).at(-1);
  const first = points[0] ?? before;
  const last = points.at(-1) ?? before;
  if (!first || !last) return [];
  return [{ t: segment.from, kW: (before ?? first).kW }, ...points.filter((p) => p.t > segment.from && p.t < segment.to), { t: segment.to, kW: last.kW }];
}
