import { faultOf } from '../faults/fault-list';
import { isInstant } from '../units/instant';
import type { VisitEvent } from './event';

/** An event with its place in time. */
export type Placed = VisitEvent & {
  /** Its place in the order: which came first is never asked of clocks. */
  place: number;
  /** Time used for every duration, UTC ms: wall time put right by the page's own clock. */
  t: number;
  /** ± from precision and second observation, seconds. */
  pm_s: number;
  /** Grows each time the device's wall clock ran back between page lives: durations across are unknown. −1 for typed and corrected times. */
  seam: number;
  /** Seconds by which the wall clock jumped here, when it did. */
  jumped_s?: number;
  /** The same moment as another device saw it, taken into this one. */
  secondObservation?: { eventId: string; personId: string; differs_s: number };
};

const JUMP_MS = 2000;
/** A typed or corrected time belongs to no stretch of the device's clock. */
const NO_SEAM = -1;
const PRECISION_S = { ms: 0, s: 0.5, min: 30, day: 12 * 3600 } as const;
const measured = (e: VisitEvent & { correctedAt?: true }) => (e.origin === 'tap' || e.origin === 'simulated') && !e.correctedAt;

/**
 * Puts events in order and gives each its time.
 *
 * A device's own touches keep their `seq` order. Within one page life the steps of wall and page clock are
 * compared: more than 2 s apart, the wall is believed when it is ahead and the page slept, else the page clock.
 * Between lives a wall clock that runs back leaves the order and makes durations across it unknown.
 * Typed, imported and corrected times stand where their time says. Devices interleave by (t, seq, device).
 */
export function placeEvents(events: readonly (VisitEvent & { correctedAt?: true })[]): Placed[] {
  const devices = new Map<string, (VisitEvent & { correctedAt?: true })[]>();
  for (const e of events) {
    const list = devices.get(e.deviceId) ?? [];
    list.push(e);
    devices.set(e.deviceId, list);
  }

  const keyed: { key: number; placed: Placed }[] = [];
  for (const list of devices.values()) {
    list.sort((a, b) => a.seq - b.seq || (a.id < b.id ? -1 : 1));
    let prev: { at: number; mono: number; life: string; t: number } | null = null;
    let seam = 0;
    let reach = Number.NEGATIVE_INFINITY;
    for (const e of list) {
      const pm_s = PRECISION_S[e.precision];
      if (!measured(e)) {
        keyed.push({ key: e.at, placed: { ...e, place: 0, t: e.at, pm_s, seam: NO_SEAM } });
        continue;
      }
      let t: number = e.at;
      let jumped: number | undefined;
      if (prev) {
        const wall: number = e.at - prev.at;
        if (e.life === prev.life) {
          const mono: number = e.mono - prev.mono;
          const slept = wall > mono && !e.awake;
          const believed: number = Math.abs(wall - mono) > JUMP_MS && !slept ? mono : wall;
          if (believed !== wall) jumped = (wall - mono) / 1000;
          t = prev.t + believed;
        } else if (wall < 0) {
          seam += 1;
        } else {
          // A jump seen earlier stays taken out, so that the two lives share one time line.
          t = prev.t + wall;
        }
        // Clocks that lead out of every calendar are none: the wall time is all there is.
        if (!isInstant(Math.round(t))) t = e.at;
      }
      prev = { at: e.at, mono: e.mono, life: e.life, t };
      reach = Math.max(reach, t);
      keyed.push({ key: reach, placed: { ...e, place: 0, t, pm_s, seam, ...(jumped === undefined ? {} : { jumped_s: jumped }) } });
    }
  }
  keyed.sort(
    (a, b) =>
      a.key - b.key ||
      a.placed.seq - b.placed.seq ||
      (a.placed.deviceId < b.placed.deviceId ? -1 : a.placed.deviceId > b.placed.deviceId ? 1 : a.placed.id < b.placed.id ? -1 : 1),
  );
  return mergeObservations(keyed.map((k) => k.placed)).map((e, place) => ({ ...e, place }));
}

const OBSERVED_KINDS = new Set<string>([
  'pulled_in',
  'stall_chosen',
  'plugged',
  'means_shown',
  'means_accepted',
  'means_refused',
  'claimed',
  'power_seen',
  'stop_asked',
  'power_gone',
  'unplugged',
  'fault',
  'pulled_out',
]);
const ENDS = new Set<string>(['unplugged', 'pulled_out']);
const OBSERVATION_MS = 30_000;

const sameMoment = (a: Placed, b: Placed): boolean =>
  a.kind === b.kind &&
  a.deviceId !== b.deviceId &&
  Math.abs(a.t - b.t) <= OBSERVATION_MS &&
  !(a.kind === 'fault' && b.kind === 'fault' && a.payload.code !== b.payload.code) &&
  !(a.kind === 'stall_chosen' && b.kind === 'stall_chosen' && a.payload.stallId !== b.payload.stallId);

/** True for what ends an attempt: choosing the first stall, or the same one, ends none. */
function isEnding(line: readonly Placed[], i: number): boolean {
  const e = line[i] as Placed;
  if (e.kind === 'fault') return faultOf(e.payload.code)?.ends ?? false;
  if (e.kind !== 'stall_chosen') return ENDS.has(e.kind);
  const before = line.slice(0, i).findLast((o) => o.kind === 'stall_chosen');
  return before?.kind === 'stall_chosen' && before.payload.stallId !== e.payload.stallId;
}

/** Two phones on one visit: the time is the recorder's, ± grows by half the difference, both are kept. */
function mergeObservations(line: Placed[]): Placed[] {
  const out: Placed[] = [];
  for (const e of line) {
    let twin = -1;
    if (OBSERVED_KINDS.has(e.kind)) {
      for (let i = out.length - 1; i >= 0; i--) {
        const o = out[i] as Placed;
        if (e.t - o.t > OBSERVATION_MS) break;
        if (sameMoment(o, e)) {
          if (!o.secondObservation) twin = i;
          break;
        }
        if (isEnding(out, i)) break;
      }
    }
    if (twin < 0) {
      out.push(e);
      continue;
    }
    const first = out[twin] as Placed;
    const recorder = first.role === 'observer' && e.role === 'recorder' ? e : first;
    const other = recorder === first ? e : first;
    const differs_s = Math.abs(e.t - first.t) / 1000;
    out[twin] = { ...recorder, pm_s: recorder.pm_s + differs_s / 2, secondObservation: { eventId: other.id, personId: other.personId, differs_s } };
  }
  return out;
}
