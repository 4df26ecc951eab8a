import { checkEvent } from './check-event';
import { deriveVisit } from './derive';
import { idOf, SITE, STALL_A, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';
import { type TypedVisit, typedVisit } from './typed-visit';

const DAY = Date.parse('2025-06-18T10:00:00Z');
const at = (hhmm: string) => Date.parse(`2025-06-18T${hhmm}:00Z`);
const typed = (more: Partial<TypedVisit> = {}): TypedVisit => ({
  siteId: SITE,
  stallId: STALL_A,
  carId: null,
  drivenBy: null,
  day: DAY,
  pulledIn: null,
  plugged: null,
  powerSeen: null,
  stopped: null,
  pulledOut: null,
  meansKind: 'contactless',
  meansId: null,
  handshake_s: null,
  socFrom: null,
  socTo: null,
  kWh: null,
  minutes: null,
  amount: null,
  currency: 'EUR',
  fault: null,
  charged: true,
  reason: 'enough',
  note: null,
  ...more,
});
const events = (more: Partial<TypedVisit>) => {
  const made = typedVisit(typed(more));
  return story().concat(
    made.map((e, i) => ({
      ...story([0, 'note', { text: 'x' }])[0],
      id: idOf(200 + i),
      seq: i + 1,
      origin: 'typed' as const,
      ...e,
      payload: e.payload as Record<string, unknown>,
    })) as never,
  );
};
const visit = (more: Partial<TypedVisit>) => deriveVisit(VISIT, events(more), payloadProblem);

describe('a visit typed in afterwards', () => {
  it('from a receipt alone: kWh, cost and the day, no duration made up', () => {
    const v = visit({ kWh: '29', amount: '8.99' });
    expect(v.ended).toBe('charge');
    expect(v.delivered).toEqual({ known: true, value: '29' });
    // "29 kWh for 8.99: 0.31 per kWh": common practice, no source.
    expect(v.allIn.known && Number(v.allIn.value.perKWh)).toBeCloseTo(0.31, 3);
    expect(v.times.charging.known).toBe(false);
    expect(v.times.visit.known).toBe(false);
    // Nothing is made up of how it started: no attempt, no screen, no proof.
    expect(v.line.map((e) => e.kind)).toEqual(['pulled_in', 'stall_chosen', 'pulled_out', 'bill']);
    expect(v.firstTry).toEqual({ answer: 'left_out', why: 'no attempt was noted', side: null });
    expect(v.times.lost).toEqual({ known: false, why: 'no attempt was noted' });
    expect(v.bills[0]?.payload).toMatchObject({ meansKind: 'contactless', kWh: '29' });
  });
  it('from the kWh alone, or from no more than that it charged: a session, and nothing of its start', () => {
    for (const more of [{ kWh: '29', meansKind: null }, { meansKind: null }]) {
      const v = visit(more);
      expect([v.ended, v.firstTry.answer, v.times.lost.known]).toEqual(['charge', 'left_out', false]);
    }
  });
  it('from remembered times: whole minutes, with their ±', () => {
    const v = visit({ pulledIn: at('10:00'), plugged: at('10:02'), powerSeen: at('10:03'), stopped: at('10:35'), pulledOut: at('10:40'), kWh: '32' });
    expect(v.times.charging).toMatchObject({ known: true, s: expect.closeTo(32 * 60, 0) });
    expect(v.times.visit.known && v.times.visit.pm_s).toBeGreaterThanOrEqual(60);
    // 32 kWh in 32 min is 60 kW: arithmetic.
    expect(v.average.known && v.average.value).toBeCloseTo(60, 0);
  });
  it('left without a charge, with its fault', () => {
    const v = visit({ charged: false, reason: 'gave_up', fault: { code: 'stall_dark', side: 'network' } });
    expect(v).toMatchObject({ ended: 'none', leftReason: 'gave_up' });
    expect(v.attempts.map((a) => a.outcome.kind)).toEqual(['failed']);
    expect(v.firstTry.answer).toBe('no');
  });
  it('a handshake by the stopwatch is kept beside, ± 2 s', () => {
    const v = visit({ handshake_s: 31 });
    expect(v.line.find((e) => e.kind === 'figure_given')?.payload).toMatchObject({ figure: 'handshake', seconds: 31, plusMinus_s: 2 });
    expect(v.attempts[0]?.times.handshake.known).toBe(false);
  });
  it('the minutes of the charge are the bill’s, else a figure that somebody gave', () => {
    const of = (more: Partial<TypedVisit>) =>
      visit({ minutes: 41.5, meansKind: null, ...more }).line.filter((e) => e.kind === 'bill' || e.kind === 'figure_given');
    expect(of({ kWh: '29', amount: '8.99' }).map((e) => [e.kind, (e.payload as { minutes?: number }).minutes])).toEqual([['bill', 41.5]]);
    expect(of({ kWh: '29' }).map((e) => e.payload)).toMatchObject([{ figure: 'charging', seconds: 2490, plusMinus_s: 30 }]);
    expect(of({ charged: false, reason: 'gave_up' })).toEqual([]);
    // Nothing is made up of the start from them.
    expect(visit({ minutes: 41.5, kWh: '29', amount: '8.99', meansKind: null }).attempts).toHaveLength(0);
  });
  it('makes only events that the record takes, in order', () => {
    for (const e of events({ kWh: '29', minutes: 2880 }).concat(
      events({
        kWh: '29',
        amount: '8.99',
        socFrom: 20,
        socTo: 62,
        note: 'cold',
        handshake_s: 40,
        minutes: 2880,
        fault: { code: 'slow_ramp', side: 'network' },
      }),
    ))
      expect(checkEvent(e, DAY + 86_400_000)).toMatchObject({ ok: true });
  });
});
