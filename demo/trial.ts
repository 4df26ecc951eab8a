import { randomLcg } from 'd3-random';
import { type RecordItem, recordItem } from '@/core/records/record-schema';
import { SIDE_LETTERS, type SideLetter } from '@/core/records/trial-schema';
import { trialOrder } from '@/core/trials/trial-order';
import type { StoredEvent } from '@/core/visit/event';
import type { Kind } from '@/core/visit/payloads';
import { idFrom } from './ids';
import { cars, ines, means, sites } from './scenario';

const random = randomLcg(0.41);
const made = (ms: number) => idFrom(random, ms);
const BEGUN = Date.parse('2025-10-11T08:10:00Z');
const TRIAL_ID = made(BEGUN);
const site = sites.vrba;
const [left, right] = [site.stalls[1], site.stalls[3]] as [{ id: string; name: string }, { id: string; name: string }];

/** Two stalls of one site, eight rounds on two days, both phones watching. */
export const trialRecord = (): RecordItem =>
  recordItem('trial', TRIAL_ID, {
    name: `Vrba Crossing ${left.name} or ${right.name}`,
    kind: 'stall',
    sides: [left, right].map((s) => ({ key: s.id, label: `Vrba Crossing ${s.name}`, siteId: site.id })),
    rounds: 10,
    seed: 41,
    time: 'handshake',
    mark: 'kW',
    observers: 2,
    heldEqual: 'Heron 62, the same card, 40 to 52 %, dry, 11 to 14 °C',
  });

/** Seconds from the last act to power, side A and side B; the third round was spoilt by a queue. */
const WAITS: readonly [a: number, b: number][] = [
  [11.2, 33.9],
  [10.4, 31.2],
  [19.8, 30.1],
  [12.9, 36.4],
  [9.8, 38],
  [11.6, 32.8],
  [13.3, 36.2],
  [10.9, 34.5],
];
const A_DAY = 4;
const MINUTE = 60_000;

/** The visits in which the rounds were run: four rounds a day. */
export function trialVisits(): StoredEvent[][] {
  const order = trialOrder({ rounds: 10, seed: 41, sides: trialSides });
  return [0, 1].map((day) => {
    const start = BEGUN + day * 24 * 60 * MINUTE;
    const visitId = made(start);
    const [phone, other, life, otherLife] = [made(start), made(start), made(start), made(start)];
    const events: StoredEvent[] = [];
    let now = start;
    /** Something that happens so many ms after what came before; by the other phone, beside it. */
    const tell = (after_ms: number, kind: Kind, payload: Record<string, unknown>, second = false) => {
      const at = now + after_ms;
      if (!second) now = at;
      events.push({
        id: made(at),
        householdId: ines.householdId,
        personId: ines.personId,
        visitId,
        kind,
        v: 1,
        at,
        precision: 'ms',
        zone: ines.zone,
        deviceId: second ? other : phone,
        life: second ? otherLife : life,
        mono: at - start + 5000,
        awake: true,
        seq: events.length + 1,
        origin: 'simulated',
        role: second ? 'observer' : 'recorder',
        payload,
      } as StoredEvent);
    };
    tell(0, 'pulled_in', { siteId: site.id, carId: cars.heron.id, airC: day === 0 ? 11 : 14 });
    for (const step of order.filter((s) => s.round > day * A_DAY && s.round <= (day + 1) * A_DAY)) {
      const which = SIDE_LETTERS.indexOf(step.side);
      const wait = (WAITS[step.round - 1] as readonly number[])[which] as number;
      const told = { trialId: TRIAL_ID, round: step.round, side: step.side satisfies SideLetter };
      tell(2 * MINUTE, 'trial_round', told);
      tell(4000, 'stall_chosen', { stallId: (which === 0 ? left : right).id });
      tell(21_000, 'plugged', {});
      tell(9000, 'means_shown', { meansKind: means.card.kind, meansId: means.card.id });
      tell(wait * 1000, 'power_seen', { screen: 'stall', mark: 'kW', value: 60 });
      tell(300 + ((step.round * 7 + which * 3) % 5) * 120, 'power_seen', { screen: 'stall', mark: 'kW', value: 61 }, true);
      tell(40_000, 'stop_asked', { by: 'button' });
      tell(12_000, 'unplugged', {});
      if (step.round === 3 && which === 1) {
        for (const side of ['a', 'b']) tell(30_000, 'trial_voided', { trialId: TRIAL_ID, round: 3, side, reason: 'a queue formed in between' });
      }
    }
    tell(MINUTE, 'pulled_out', { reason: 'enough' });
    return events;
  });
}
const trialSides = [left, right].map((s) => ({ key: s.id, label: s.name, siteId: site.id }));
