import Big from 'big.js';
import fc from 'fast-check';
import { alarms } from './alarms';
import { deriveVisit } from './derive';
import type { StoredEvent } from './event';
import { APP, CARD, HOUSEHOLD, idOf, KW, PERSON, PHONE, SECOND_PHONE, SITE, STALL_A, STALL_B, T0, VISIT } from './fixtures/story';
import { helplineCard } from './helpline-card';
import { joinedEvents } from './join-visits';
import { eventLabel } from './kinds/registry';
import { nextAct } from './next-act';
import { payloadProblem } from './payloads';
import { stayClocks } from './stay-clocks';

/** Any run of events two phones could make, sensible or not. */
const step = fc.record({
  kind: fc.constantFrom(
    ['stall_chosen', { stallId: STALL_A }],
    ['stall_chosen', { stallId: STALL_B }],
    ['first_act', { what: 'handle' }],
    ['plugged', {}],
    ['means_shown', CARD],
    ['means_shown', APP],
    ['means_refused', CARD],
    ['means_accepted', CARD],
    ['claimed', { by: 'screen' }],
    ['power_seen', KW],
    ['power_seen', { ...KW, late: true }],
    ['reading', { screen: 'stall', kW: 50, kWh: '3.2' }],
    ['reading', { screen: 'car', socPct: 40 }],
    ['fault', { code: 'start_error', side: 'network' }],
    ['fault', { code: 'derated', side: 'network' }],
    ['fault', { code: 'card_refused', side: 'payment' }],
    ['stop_asked', { by: 'button' }],
    ['power_gone', {}],
    ['power_gone', { why: 'asked' }],
    ['change', { what: 'paused' }],
    ['change', { what: 'resumed' }],
    ['unplugged', {}],
    ['queue_joined', {}],
    ['stall_free', {}],
    ['pulled_out', { reason: 'enough' }],
    ['pulled_out', { reason: 'gave_up' }],
    ['pulled_out', { reason: 'closed', continuesVisit: idOf(900) }],
    ['survey', { stalls: [{ stallId: STALL_A, state: 'dark' }] }],
    ['adapter_fitted', { adapterId: idOf(60) }],
    ['reserved', {}],
    ['stuck', { end: 'post' }],
    ['help_called', {}],
    ['help_ended', { result: 'reset' }],
    ['figure_given', { figure: 'handshake', seconds: 30, startMark: 'card', endMark: 'kW', used: true }],
    ['rating', { stars: 2 }],
    ['a_kind_of_tomorrow', { anything: [1, 2] }],
    ['bill', { sessions: [], amount: '4.10', currency: 'EUR', kWh: '6.3', state: 'charged' }],
  ),
  gap: fc.integer({ min: -4000, max: 90_000 }),
  phone: fc.constantFrom(PHONE, SECOND_PHONE),
  awake: fc.boolean(),
  life: fc.constantFrom(idOf(70), idOf(71)),
  target: fc.option(fc.nat(30)),
  withdraws: fc.boolean(),
  corrects: fc.constantFrom(
    { at: T0 + 30_000 },
    { set: { 'seen.free': 2, socPct: 30 } },
    { set: { kW: 4000, kWh: null } },
    { set: { side: 'car' } },
    { set: { kW: 5000 } },
    { set: { __proto__: 1, used: false } as Record<string, unknown> },
  ),
});

const visits = fc.array(step, { maxLength: 30 }).map((steps): StoredEvent[] => {
  let at = T0;
  const seq = new Map<string, number>();
  const first: StoredEvent = {
    id: idOf(100),
    householdId: HOUSEHOLD,
    personId: PERSON,
    visitId: VISIT,
    kind: 'pulled_in',
    v: 1,
    at,
    precision: 'ms',
    zone: 'Europe/Ljubljana',
    deviceId: PHONE,
    life: idOf(70),
    mono: 1000,
    awake: true,
    seq: 1,
    origin: 'tap',
    role: 'recorder',
    payload: { siteId: SITE },
  };
  seq.set(PHONE, 1);
  return [
    first,
    ...steps.map((s, i): StoredEvent => {
      at += s.gap;
      const n = (seq.get(s.phone) ?? 0) + 1;
      seq.set(s.phone, n);
      const target = s.target === null ? null : idOf(100 + s.target);
      const [kind, payload] = target === null ? s.kind : s.withdraws ? ['withdrawal', { target }] : ['correction', { target, ...s.corrects }];
      return {
        ...first,
        id: idOf(101 + i),
        kind: kind as string,
        payload: payload as Record<string, unknown>,
        at,
        mono: 1000 + i * 777,
        awake: s.awake,
        seq: n,
        deviceId: s.phone,
        role: s.phone === PHONE ? ('recorder' as const) : ('observer' as const),
        life: s.life,
      };
    }),
  ];
});

const derive = (events: StoredEvent[]) => deriveVisit(VISIT, events, payloadProblem);
const text = (events: StoredEvent[]) => JSON.stringify(derive(events), (_k, v) => (v instanceof Map ? [...v].sort() : v));

describe('whatever is recorded', () => {
  it('any order and any duplication of deliveries give the same visit', () => {
    fc.assert(
      fc.property(visits, fc.infiniteStream(fc.nat()), (events, stream) => {
        const shuffled = events
          .map((e) => ({ e, k: stream.next().value as number }))
          .sort((a, b) => a.k - b.k)
          .map(({ e }) => e);
        const doubled = shuffled.flatMap((e) => ((stream.next().value as number) % 3 === 0 ? [e, structuredClone(e)] : [e]));
        expect(text(doubled)).toBe(text(events));
      }),
      { seed: 20251014, numRuns: 400 },
    );
  });

  it('no known duration is negative but the signed gap, and no figure is NaN', () => {
    fc.assert(
      fc.property(visits, (events) => {
        const v = derive(events);
        for (const times of [v.times, ...v.attempts.map((a) => a.times)]) {
          for (const [name, t] of Object.entries(times)) {
            if (!t.known) expect(t.why).not.toBe('');
            else {
              expect(Number.isFinite(t.s)).toBe(true);
              if (name !== 'plugCardGap') expect(t.s).toBeGreaterThanOrEqual(0);
            }
          }
        }
      }),
      { seed: 7, numRuns: 300 },
    );
  });

  it('the tape has no gap, no overlap and no negative stretch', () => {
    fc.assert(
      fc.property(visits, (events) => {
        const { tape } = derive(events);
        tape.forEach((s, i) => {
          expect(s.to).toBeGreaterThan(s.from);
          if (i > 0) expect(s.from).toBe(tape[i - 1]?.to);
        });
      }),
      { seed: 8, numRuns: 300 },
    );
  });

  it('attempts are numbered from one and what is paid is the sum of the bills', () => {
    fc.assert(
      fc.property(visits, (events) => {
        const v = derive(events);
        expect(v.attempts.map((a) => a.n)).toEqual(v.attempts.map((_, i) => i + 1));
        if (v.paid.known) expect(v.paid.value.amount).toBe(v.bills.reduce((s, b) => s.plus(b.payload.amount), new Big(0)).toString());
      }),
      { seed: 9, numRuns: 200 },
    );
  });
  it('the Stall has something to propose, to count down, to alarm with and to read aloud', () => {
    fc.assert(
      fc.property(visits, fc.boolean(), fc.boolean(), (events, payFirst, adapter) => {
        const v = derive(events);
        expect(nextAct(v, { carIsMeans: false, payFirst, adapter })).toBeDefined();
        const clocks = stayClocks(v, { maxStay_min: 60, overstayAfter_min: 70, idleGrace_min: 5 });
        for (const a of alarms(v, clocks, { pct: 40, at: T0 })) expect(Number.isFinite(a.due)).toBe(true);
        expect(helplineCard(v, { site: null, network: null, stall: null }).lines.length).toBeGreaterThanOrEqual(1);
        for (const [n, e] of v.line.entries()) expect([e.place, eventLabel(e).length > 0]).toEqual([n, true]);
      }),
      { seed: 4, numRuns: 200 },
    );
  });
  it('what one phone recorded, joined into what the other did, is what both would have recorded together', () => {
    fc.assert(
      fc.property(visits, (events) => {
        const other = idOf(901);
        const [mine, theirs] = [events.filter((e) => e.deviceId === PHONE), events.filter((e) => e.deviceId !== PHONE)];
        const apart = theirs.map((e) => ({ ...e, visitId: other }));
        const joined = joinedEvents(VISIT, apart, (id) => id).map(({ payload: { joinedFrom: _, recordedIn: __, ...payload }, ...e }) => ({ ...e, payload }));
        expect(text([...mine, ...joined])).toBe(text(events));
      }),
      { seed: 5, numRuns: 200 },
    );
  });
});
