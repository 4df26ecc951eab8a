import { tzOffset } from '@date-fns/tz/tzOffset';

const MINUTE = 60_000;
const DAY = 86_400_000;
/** No zone's clock has been put forward and back again within so long. */
const LOOK = 3 * 3_600_000;

/** A stretch on which the clock of a place passes none of the times asked for: from when, UTC ms, with what its calendar and clock say then. */
export type ClockStretch = { from: number; day: string; weekday: number; minute: number };

const offsetAt = (zone: string, at: number): number => tzOffset(zone, new Date(at)) * MINUTE;

/** The moments between two at which a zone's clock is put forward or back, with what it is ahead of UTC from then on, ms. */
function offsets(zone: string, from: number, to: number): { from: number; offset: number }[] {
  const found = [{ from, offset: offsetAt(zone, from) }];
  for (let at = from; at < to; ) {
    const next = Math.min(to, at + LOOK);
    const before = found.at(-1)?.offset as number;
    const after = offsetAt(zone, next);
    if (after !== before) {
      let [lo, hi] = [at, next];
      while (hi - lo > 1) {
        const mid = Math.floor((lo + hi) / 2);
        if (offsetAt(zone, mid) === before) lo = mid;
        else hi = mid;
      }
      found.push({ from: hi, offset: after });
    }
    at = next;
  }
  return found;
}

/**
 * A session cut by the clock of its place: at midnight, at each time of day asked for, and where the clock is put forward or back.
 * Clock windows follow the wall clock: times that are skipped never come, times that come twice come twice.
 * @param from, to UTC ms @param minutes of the day to cut at, rising
 * @returns at least one, the first from `from`
 */
export function clockStretches(zone: string, from: number, to: number, minutes: readonly number[]): ClockStretch[] {
  const cuts = [...new Set([0, ...minutes])].sort((a, b) => a - b);
  const out: ClockStretch[] = [];
  const at = (ms: number, offset: number) => {
    const local = ms + offset;
    const day = Math.floor(local / DAY);
    if (out.at(-1)?.from === ms) out.pop();
    out.push({
      from: ms,
      day: new Date(day * DAY).toISOString().slice(0, 10),
      weekday: (((day + 4) % 7) + 7) % 7,
      minute: Math.floor((local - day * DAY) / MINUTE),
    });
  };
  const parts = offsets(zone, from, to);
  for (const [i, part] of parts.entries()) {
    const end = parts[i + 1]?.from ?? to;
    at(part.from, part.offset);
    for (let day = Math.floor((part.from + part.offset) / DAY) * DAY; day < end + part.offset; day += DAY)
      for (const minute of cuts) {
        const ms = day + minute * MINUTE - part.offset;
        if (ms > part.from && ms < end) at(ms, part.offset);
      }
  }
  return out;
}
