import type { Side } from '../faults/fault-list';
import { faultOf } from '../faults/fault-list';
import type { MeansKind } from '../records/means-kind';
import type { Precision, StoredEvent } from '../visit/event';
import type { Kind, Payload } from '../visit/payloads';
import type { CarModel } from './car-model';
import { type ChargeLimits, samplesWorthReading, simulateCharge } from './charge';

/** What happens in one attempt. Seconds count from the attempt's last act unless said otherwise. */
export type AttemptPlan = {
  stallId: string;
  /** Seconds from what came before to the choosing of the stall. */
  after_s?: number;
  order?: 'plug_first' | 'card_first';
  /** `hold`: what showing it holds back, in euro. */
  means: { kind: MeansKind; id?: string; hold?: string };
  result:
    | {
        is: 'power';
        handshake_s: number;
        fromPct: number;
        toPct: number;
        limits: ChargeLimits;
        late?: boolean;
        neighbour?: boolean;
        stop?: 'button' | 'car' | 'none';
        endFault?: string;
        paused?: { at_s: number; for_s: number };
      }
    | { is: 'fault'; code: string; after_s: number; beforeAct?: boolean }
    | { is: 'refused'; code: string; shows: number }
    | { is: 'claims'; wait_s: number; thenFault?: boolean };
};

export type VisitPlan = {
  visitId: string;
  householdId: string;
  personId: string;
  deviceId: string;
  life: string;
  at: number;
  zone: string;
  siteId: string;
  carId: string;
  car: CarModel;
  seen?: { free?: number; total?: number; outOfOrder?: number };
  queue_s?: number;
  attempts: readonly AttemptPlan[];
  idle_s?: number;
  /** `null`: the visit is left open. */
  leave: Payload<'pulled_out'>['reason'] | null;
  /** The visit with which the stop goes on at another site. */
  continuesVisit?: string;
  bill?: (kWh: string, sessions: number) => { amount: string; currency: string; kWh?: string } | null;
};

export type SimulationHands = {
  /** Uniform in [0, 1). */
  random: () => number;
  newId: (ms: number) => string;
};

const CARDLESS: ReadonlySet<MeansKind> = new Set(['autocharge', 'plug_and_charge', 'free_vend']);

/**
 * Plays one visit and returns its events as a phone would have made them, in order.
 * Pure: the same plan and the same hands give the same events.
 */
export function simulateVisit(plan: VisitPlan, hands: SimulationHands): StoredEvent[] {
  const events: StoredEvent[] = [];
  let t = plan.at;
  let seq = 0;
  const jitter = (s: number) => s * (0.85 + 0.3 * hands.random());
  const pass = (s: number) => {
    t += Math.round(jitter(s) * 1000);
  };
  const emit = <K extends Kind>(kind: K, payload: Payload<K>, precision: Precision = 'ms'): StoredEvent => {
    seq += 1;
    const e: StoredEvent = {
      id: hands.newId(t),
      householdId: plan.householdId,
      personId: plan.personId,
      visitId: plan.visitId,
      kind,
      v: 1,
      at: t,
      precision,
      zone: plan.zone,
      deviceId: plan.deviceId,
      life: plan.life,
      mono: t - plan.at + 1000,
      awake: true,
      seq,
      origin: 'simulated',
      role: 'recorder',
      payload: payload as Record<string, unknown>,
    };
    events.push(e);
    return e;
  };

  emit('pulled_in', { siteId: plan.siteId, carId: plan.carId, ...(plan.seen ? { seen: plan.seen } : {}) });
  if (plan.queue_s) {
    pass(20);
    emit('queue_joined', {});
    pass(plan.queue_s);
    emit('stall_free', {});
  }
  let stallId = '';
  let plugged = false;
  let delivered = 0;
  let sessions = 0;
  let before: AttemptPlan | null = null;
  for (const a of plan.attempts) {
    if (a.stallId !== stallId) {
      pass(a.after_s ?? 40);
      stallId = a.stallId;
      plugged = false;
      emit('stall_chosen', { stallId });
    } else pass(a.after_s ?? 25);
    const r = a.result;
    if (r.is === 'fault' && r.beforeAct) {
      pass(r.after_s);
      emit('fault', { code: r.code, side: sideOf(r.code) });
      before = a;
      continue;
    }
    const plug = () => {
      pass(14);
      if (plugged) {
        emit('unplugged', {});
        pass(6);
      }
      emit('plugged', {});
      plugged = true;
    };
    const show = () => {
      if (CARDLESS.has(a.means.kind)) return;
      pass(9);
      emit('means_shown', {
        meansKind: a.means.kind,
        ...(a.means.id ? { meansId: a.means.id } : {}),
        ...(a.means.hold ? { holdAmount: a.means.hold, currency: 'EUR' } : {}),
      });
    };
    const meansPayload = { meansKind: a.means.kind, ...(a.means.id ? { meansId: a.means.id } : {}) };
    // A refused card is answered by another means with the plug left in.
    const stayedIn = plugged && before?.result.is === 'refused';
    before = a;
    if (stayedIn) show();
    else if (a.order === 'card_first') {
      show();
      plug();
    } else {
      plug();
      show();
    }
    if (r.is === 'refused') {
      for (let i = 0; i < r.shows; i++) {
        if (i > 0) show();
        pass(7);
        emit('means_refused', { ...meansPayload, fault: r.code });
      }
      continue;
    }
    if (r.is === 'fault') {
      pass(r.after_s);
      emit('fault', { code: r.code, side: sideOf(r.code) });
      continue;
    }
    if (r.is === 'claims') {
      pass(12);
      emit('claimed', { by: 'screen' });
      pass(r.wait_s);
      if (r.thenFault !== false) emit('fault', { code: 'claims_no_power', side: sideOf('claims_no_power') });
      continue;
    }
    const start = t;
    const accepted = r.handshake_s * 0.35;
    t = start + Math.round(accepted * 1000);
    emit('means_accepted', meansPayload);
    if (hands.random() < 0.4) {
      t = start + Math.round(r.handshake_s * 700);
      emit('claimed', { by: 'light' });
    }
    t = start + Math.round(r.handshake_s * 1000);
    const powerAt = t;
    if (r.late) t += 240_000;
    emit('power_seen', { screen: 'stall', mark: 'kW', ...(r.late ? { late: true } : {}) });
    sessions += 1;
    const samples = simulateCharge(plan.car, r.fromPct, r.toPct, r.limits);
    let neighbourTold = !r.neighbour;
    for (const s of samplesWorthReading(samples)) {
      const at = powerAt + s.t_s * 1000;
      if (at <= t) continue;
      if (!neighbourTold && r.limits.shared && s.t_s >= r.limits.shared.from_s) {
        t = Math.max(t + 500, powerAt + r.limits.shared.from_s * 1000);
        emit('change', { what: 'neighbour_in' });
        neighbourTold = true;
      }
      t = Math.max(t + 1000, at);
      emit('reading', { screen: 'stall', socPct: Math.round(s.socPct), kW: Math.round(s.kW), kWh: s.kWh.toFixed(1) });
      if (r.paused && s.t_s >= r.paused.at_s) {
        pass(8);
        emit('power_gone', { why: 'unknown' });
        t += r.paused.for_s * 1000;
        emit('power_seen', { screen: 'stall', mark: 'kW' });
      }
    }
    const last = samples.at(-1);
    delivered += Number((last?.kWh ?? 0).toFixed(1));
    pass(6);
    if (r.endFault) emit('fault', { code: r.endFault, side: sideOf(r.endFault) });
    else if (r.stop === 'car') emit('power_gone', { why: 'car_target' });
    else if (r.stop !== 'none') {
      emit('stop_asked', { by: 'button' });
      pass(4);
      emit('power_gone', { why: 'asked' });
    }
  }
  if (plan.leave !== null) {
    if (plan.idle_s) pass(plan.idle_s);
    if (plugged) {
      pass(25);
      emit('unplugged', {});
    }
    pass(45);
    emit('pulled_out', { reason: plan.leave, ...(plan.continuesVisit ? { continuesVisit: plan.continuesVisit } : {}) });
    const bill = plan.bill?.(delivered.toFixed(1), sessions);
    if (bill) {
      pass(90);
      emit('bill', { sessions: [], amount: bill.amount, currency: bill.currency, ...(bill.kWh ? { kWh: bill.kWh } : {}), state: 'charged' });
    }
  }
  return events;
}

const sideOf = (code: string): Side => faultOf(code)?.side ?? 'network';
