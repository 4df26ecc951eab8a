import type { Levelled } from './device-line';
import type { Look } from './placed';
import { canBeSameAct, isEnding, seenByMany } from './same-act';

/** Two looks at one act are no further apart than this, the clocks put level. */
const SAME_ACT_MS = 30_000;

/** An act with the looks of other devices at it. */
export type Act = { of: Levelled; looks: Look[]; devices: Set<string> | null };

/**
 * Takes what other devices saw into what the recorder noted: the time is the recorder's, whoever was earlier.
 * @param recorder its events in order @param others the other devices' events, one list a device; those that record come first
 * @returns every act once: the recorder's, and what only others have
 */
export function mergeLooks(recorder: readonly Levelled[], others: readonly (readonly Levelled[])[]): Act[] {
  const acts: Act[] = [];
  const byKind = new Map<string, Act[]>();
  const add = (of: Levelled) => {
    const act: Act = { of, looks: [], devices: null };
    acts.push(act);
    const list = byKind.get(of.e.kind) ?? [];
    list.push(act);
    byKind.set(of.e.kind, list);
  };
  for (const r of recorder) add(r);
  if (others.length === 0) return acts;
  const inTime = [...recorder].sort((a, b) => a.key - b.key || a.e.seq - b.e.seq);
  const line = inTime.map((x) => x.e);
  const endings = inTime.filter((_, i) => isEnding(line, i));
  /** What ended an attempt stands between two looks: they are two acts. */
  const endsBetween = (a: Levelled, b: Levelled) => {
    const [from, to] = a.t < b.t ? [a.t, b.t] : [b.t, a.t];
    return endings.some((x) => x !== a && x !== b && x.t > from && x.t < to);
  };

  for (const device of others)
    for (const o of device) {
      const far = (act: Act) => Math.abs(act.of.t - o.t);
      // An act that was recorded before one that was only seen, then the nearer.
      const rank = (act: Act) => (act.of.e.role === 'recorder' ? 0 : SAME_ACT_MS + 1) + far(act);
      let nearest: Act | null = null;
      if (seenByMany(o.e))
        for (const act of byKind.get(o.e.kind) ?? [])
          if (
            far(act) <= SAME_ACT_MS &&
            (!nearest || rank(act) < rank(nearest)) &&
            act.of.e.deviceId !== o.e.deviceId &&
            !act.devices?.has(o.e.deviceId) &&
            canBeSameAct(act.of.e, o.e) &&
            !endsBetween(act.of, o)
          )
            nearest = act;
      if (!nearest) {
        add(o);
        continue;
      }
      nearest.devices ??= new Set();
      nearest.devices.add(o.e.deviceId);
      nearest.looks.push({ eventId: o.e.id, personId: o.e.personId, differs_s: far(nearest) / 1000 });
    }
  return acts;
}
