import { isAfterwards } from '../kinds/registry';
import { aheadOfServer, clockOffset } from './clock-offset';
import { deviceLine, type Levelled, type Timed } from './device-line';
import { type Act, mergeLooks } from './merge-looks';
import { type Corrected, isTouch, type Placed } from './placed';

/** Somebody who looks on notes what happened a moment later than it did, seconds. Common practice, no source. */
const LOOK_PM_S = 2;
const PRECISION_S = { ms: 0, s: 0.5, min: 30, day: 12 * 3600 } as const;

const before = (a: Timed, b: Timed): number =>
  a.key - b.key || a.e.seq - b.e.seq || (a.e.deviceId < b.e.deviceId ? -1 : a.e.deviceId > b.e.deviceId ? 1 : a.e.id < b.e.id ? -1 : 1);

/**
 * Puts events in order and gives each its time.
 *
 * A device's own touches keep their `seq` order ([deviceLine]). One device is the recorder: its order and its times stand,
 * whatever others saw. Every other device's clock is put level with the recorder's ([clockOffset]); what it saw of an act that
 * the recorder noted is taken into that act, ± grows by half the difference. What nobody but an onlooker saw stands on the
 * line by its time, marked `onlySeen`. Typed, imported and corrected times stand where they say.
 */
export function placeEvents(events: readonly Corrected[]): Placed[] {
  const byDevice = new Map<string, Corrected[]>();
  for (const e of events) {
    const list = byDevice.get(e.deviceId) ?? [];
    list.push(e);
    byDevice.set(e.deviceId, list);
  }
  const lines = [...byDevice.values()].map(deviceLine);
  const recorder = recorderOf(lines);
  if (!recorder) return [];
  const ahead = aheadOfServer(recorder);
  const level = (line: readonly Timed[]): Levelled[] => {
    if (line === recorder) return line.map((x) => ({ ...x, clock_s: 0 }));
    const out: Levelled[] = [];
    // A clock that was set back in between is another clock from there on.
    for (const seam of new Set(line.map((x) => x.seam))) {
      const stretch = line.filter((x) => x.seam === seam);
      if (seam < 0) {
        out.push(...stretch.map((x) => ({ ...x, clock_s: 0 })));
        continue;
      }
      const own = aheadOfServer(stretch);
      const offset = clockOffset(stretch, recorder, own === null || ahead === null ? null : own - ahead);
      out.push(...stretch.map((x) => ({ ...x, t: x.t - offset.ms, clock_s: offset.pm_s })));
    }
    // Put level, its own order still stands: never before what it recorded earlier.
    let reach = Number.NEGATIVE_INFINITY;
    return out
      .sort((a, b) => a.e.seq - b.e.seq || before(a, b))
      .map((x) => {
        if (x.seam < 0) return x;
        reach = Math.max(reach, x.t);
        return { ...x, key: reach };
      });
  };
  const records = (line: readonly Timed[]) => line.some((x) => x.e.role === 'recorder');
  const others = lines
    .filter((l) => l !== recorder)
    .sort((a, b) => Number(records(b)) - Number(records(a)) || ((a[0] as Timed).e.deviceId < (b[0] as Timed).e.deviceId ? -1 : 1))
    .map(level);
  const acts = mergeLooks(level(recorder), others).sort((a, b) => before(a.of, b.of));
  const silentFrom = lastRecorded(acts);
  const by = (recorder[0] as Timed).e.deviceId;
  return acts.map((a, place) => placed(a, place, a.of.e.deviceId !== by && isOnlySeen(a.of.e, a.of.t, silentFrom)));
}

/** The device that records: the one whose first touch as recorder is the earliest; without any, the earliest of all. */
function recorderOf(lines: readonly Timed[][]): Timed[] | undefined {
  const first = (line: readonly Timed[]): readonly [rank: number, x: Timed] => {
    const of = (test: (x: Timed) => boolean) => line.filter(test).sort(before)[0];
    const touched = of((x) => x.e.role === 'recorder' && isTouch(x.e));
    if (touched) return [0, touched];
    // A recording that was joined to what somebody typed in knows more than that.
    const joined = of((x) => isJoined(x.e) && isTouch(x.e));
    if (joined) return [1, joined];
    const recorded = of((x) => x.e.role === 'recorder');
    return recorded ? [2, recorded] : [3, of(() => true) as Timed];
  };
  return lines.map((line) => ({ line, first: first(line) })).sort((a, b) => a.first[0] - b.first[0] || before(a.first[1], b.first[1]))[0]?.line;
}

/** The last act of those who record, UTC ms; `null` when nobody does. */
function lastRecorded(acts: readonly Act[]): number | null {
  const times = acts.filter((a) => a.of.e.role === 'recorder' && !isAfterwards(a.of.e.kind)).map((a) => a.of.t);
  return times.length === 0 ? null : times.reduce((a, b) => Math.max(a, b));
}

const isJoined = (e: Corrected): boolean => (e.payload as { joinedFrom?: unknown }).joinedFrom !== undefined;

/** True for what only somebody looking on has. A recording joined to this one goes on as its own recorder where this one's fell silent. */
function isOnlySeen(e: Corrected, t: number, silentFrom: number | null): boolean {
  if (e.role !== 'observer' || silentFrom === null) return false;
  return !isJoined(e) || t <= silentFrom;
}

/** Field by field: a visit has many events, and copying each as it comes costs more than all that is derived from it. */
function placed({ of, looks }: Act, place: number, onlySeen: boolean): Placed {
  const { e, t, clock_s, seam, jumped_s } = of;
  const out = {
    id: e.id,
    householdId: e.householdId,
    personId: e.personId,
    visitId: e.visitId,
    kind: e.kind,
    v: e.v,
    at: e.at,
    precision: e.precision,
    zone: e.zone,
    deviceId: e.deviceId,
    life: e.life,
    mono: e.mono,
    awake: e.awake,
    seq: e.seq,
    origin: e.origin,
    role: e.role,
    payload: e.payload,
    place,
    t,
    pm_s: PRECISION_S[e.precision] + (onlySeen ? LOOK_PM_S : 0) + looks.reduce((most, l) => Math.max(most, l.differs_s), 0) / 2,
    clock_s,
    seam,
  } as Placed;
  if (e.touchedAt !== undefined) out.touchedAt = e.touchedAt;
  if (jumped_s !== undefined) out.jumped_s = jumped_s;
  if (looks.length > 0) out.looks = looks;
  if (onlySeen) out.onlySeen = true;
  return out;
}
