import fc from 'fast-check';
import { deriveVisit } from './derive';
import type { StoredEvent } from './event';
import { idOf, VISIT } from './fixtures/story';
import { type Phone, phone, recordedBy, trueVisit } from './fixtures/true-visit';
import { joinedEvents } from './join-visits';
import { payloadProblem } from './payloads';
import type { Timing } from './timing';

/**
 * Truth, not only consistency: a visit whose true times are known, as one to four phones record it with clocks that are off,
 * jump and look late. Each derived figure lies within its ±. Invented visits; the rules are those of docs/definitions.md.
 */
const derive = (events: StoredEvent[]) => deriveVisit(VISIT, events, payloadProblem);
const within = (t: Timing | undefined, truth: number) => {
  expect(t).toMatchObject({ known: true });
  if (!t?.known) return;
  expect(Math.abs(t.s - truth)).toBeLessThanOrEqual(t.pm_s + 1e-6);
};
const withRecorder = (others: number) => fc.tuple(trueVisit, phone(0), fc.array(phone(90), { minLength: others, maxLength: others }));
const all = (phones: Phone[], truth: Parameters<typeof recordedBy>[2], missed = new Set<number>()) =>
  phones.flatMap((p, n) => recordedBy(n, p, truth, n === 0 ? missed : new Set()));

describe('what one phone recorded', () => {
  it('is exact, whatever its wall clock did', () => {
    fc.assert(
      fc.property(withRecorder(0), ([truth, recorder]) => {
        const v = derive(all([recorder], truth));
        const session = v.attempts.find((a) => a.proof);
        expect(v.attempts).toHaveLength(truth.attempts);
        expect(session?.times.handshake).toMatchObject({ pm_s: 0 });
        within(session?.times.handshake, truth.handshake);
        within(v.times.charging, truth.charging);
        within(v.times.visit, truth.visit);
        expect(v.firstTry.answer).toBe(truth.attempts === 1 ? 'yes' : 'no');
      }),
      { numRuns: 150, seed: 1 },
    );
  });
});

/** From this act on the first phone is silent and the second records. */
const takesOver = (events: StoredEvent[], from: number): StoredEvent[] =>
  events.map((e) => (e.at - (events[0] as StoredEvent).at >= from * 1000 ? { ...e, role: 'recorder' as const } : e));

/** A phone in the hand of whoever records: it taps in time. */
const inTime = { jump: null, saw: Array<boolean>(24).fill(true), late: Array<number>(24).fill(0) };

describe('a phone that died', () => {
  const died = fc.tuple(trueVisit, phone(0), phone(90));
  it('has its visit ended by the one that took over: one attempt, figures within their ±', () => {
    fc.assert(
      fc.property(died, ([truth, recorder, looker]) => {
        const second = { ...looker, ...inTime };
        const first = recordedBy(0, { ...recorder, told: true }, truth).slice(0, truth.proof + 1);
        const v = derive([...first, ...takesOver(recordedBy(1, { ...second, told: true }, truth), (truth.acts[truth.proof]?.at ?? 0) + 20)]);
        expect(v.attempts).toHaveLength(truth.attempts);
        expect(v.pulledOutAt).not.toBeNull();
        within(v.times.charging, truth.charging);
        within(v.times.visit, truth.visit);
        expect(v.times.visit.known && v.times.visit.pm_s).toBeGreaterThan(0);
      }),
      { numRuns: 120, seed: 4 },
    );
  });
  it('goes on open while the other only looks on', () => {
    fc.assert(
      fc.property(died, ([truth, recorder, looker]) => {
        const first = recordedBy(0, recorder, truth).slice(0, truth.proof + 1);
        const v = derive([...first, ...recordedBy(1, { ...looker, told: true }, truth)]);
        expect(v.pulledOutAt).toBeNull();
        expect(v.attempts.at(-1)?.ended).toBeUndefined();
      }),
      { numRuns: 60, seed: 5 },
    );
  });
});

describe('two recordings of one visit, joined', () => {
  const both = fc.tuple(trueVisit, phone(0), phone(90), fc.boolean());
  it('are one clean visit, and the longer one ends it where the other fell silent', () => {
    fc.assert(
      fc.property(both, ([truth, recorder, looker, cut]) => {
        const mine = recordedBy(0, { ...recorder, told: true }, truth);
        const other = recordedBy(1, { ...looker, ...inTime, told: true }, truth).map((e) => ({
          ...e,
          role: 'recorder' as const,
          visitId: idOf(77),
        }));
        const joined = joinedEvents(VISIT, other, (id) => id);
        const v = derive([...(cut ? mine.slice(0, truth.proof + 1) : mine), ...joined]);
        expect(v.attempts.map((a) => a.outcome.kind)).toEqual(truth.attempts === 1 ? ['power'] : ['failed', 'power']);
        within(v.attempts.at(-1)?.times.handshake, truth.handshake);
        within(v.times.charging, truth.charging);
        within(v.times.visit, truth.visit);
      }),
      { numRuns: 120, seed: 6 },
    );
  });
});

describe.each([1, 2, 3])('what others saw besides: %i more phones', (others) => {
  it('neither adds an attempt nor moves a figure out of its ±, whatever their clocks say', () => {
    fc.assert(
      fc.property(withRecorder(others), ([truth, recorder, lookers]) => {
        const v = derive(all([recorder, ...lookers], truth));
        const session = v.attempts.find((a) => a.proof);
        expect(v.attempts.map((a) => a.outcome.kind)).toEqual(truth.attempts === 1 ? ['power'] : ['failed', 'power']);
        within(session?.times.handshake, truth.handshake);
        within(v.times.charging, truth.charging);
        within(v.times.visit, truth.visit);
        expect(v.firstTry.answer).toBe(truth.attempts === 1 ? 'yes' : 'no');
      }),
      { numRuns: 120, seed: 2 },
    );
  });
  it('stands for power that the recorder missed, within its ±, which is never 0', () => {
    fc.assert(
      fc.property(withRecorder(others), ([truth, recorder, lookers]) => {
        const seen = lookers.map((p) => ({ ...p, told: true, saw: p.saw.map(() => true) }));
        const v = derive(all([{ ...recorder, told: true }, ...seen], truth, new Set([truth.proof])));
        const session = v.attempts.find((a) => a.proof);
        within(session?.times.handshake, truth.handshake);
        expect(session?.times.handshake.known && session.times.handshake.pm_s).toBeGreaterThan(0);
      }),
      { numRuns: 120, seed: 3 },
    );
  });
});
