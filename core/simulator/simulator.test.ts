import { checkEvent } from '../visit/check-event';
import { deriveVisit } from '../visit/derive';
import { HOUSEHOLD, idOf, LIFE, PERSON, PHONE, SITE, STALL_A, STALL_B, T0, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import type { CarModel } from './car-model';
import { simulateCharge } from './charge';
import { type AttemptPlan, simulateVisit } from './simulate-visit';

const flat: CarModel = {
  usableKWh: 60,
  curve: [
    [0, 100],
    [100, 100],
  ],
};
/** A counter in place of randomness. */
const hands = () => {
  let n = 0;
  return { random: () => 0.5, newId: () => idOf(5000 + n++) };
};
const play = (attempts: AttemptPlan[], leave: 'enough' | 'gave_up' | null = 'enough') =>
  simulateVisit(
    {
      visitId: VISIT,
      householdId: HOUSEHOLD,
      personId: PERSON,
      deviceId: PHONE,
      life: LIFE,
      at: T0,
      zone: 'Europe/Ljubljana',
      siteId: SITE,
      carId: idOf(50),
      car: flat,
      attempts,
      leave,
      bill: (kWh) => ({ amount: '20', currency: 'EUR', kWh }),
    },
    hands(),
  );
const card = { kind: 'contactless' as const };
const power: AttemptPlan = {
  stallId: STALL_B,
  means: card,
  result: { is: 'power', handshake_s: 31, fromPct: 20, toPct: 70, limits: { stallKW: 50, loss: 0 } },
};

describe('a simulated charge', () => {
  it('at a steady 50 kW gives 0.83 kWh a minute', () => {
    // Common practice, no source.
    const s = simulateCharge(flat, 10, 90, { stallKW: 50, loss: 0 });
    const at = (t: number) => s.find((x) => x.t_s === t)!.kWh;
    expect((at(1260) - at(660)) / 10).toBeCloseTo(0.83, 2);
  });
  it('a pair on one 150 kW cabinet: 150 alone, 75 each', () => {
    // Common practice, no source.
    const s = simulateCharge(
      {
        ...flat,
        curve: [
          [0, 200],
          [100, 200],
        ],
      },
      10,
      60,
      { stallKW: 150, shared: { from_s: 300, kW: 75 } },
    );
    expect([s.find((x) => x.t_s === 200)!.kW, s.find((x) => x.t_s === 400)!.kW]).toEqual([150, 75]);
  });
  it('what the meter counts less the loss is what the battery gains', () => {
    const last = simulateCharge(flat, 20, 70, { stallKW: 80, loss: 0.1 }).at(-1)!;
    expect((last.kWh * 0.9) / flat.usableKWh).toBeCloseTo((last.socPct - 20) / 100, 9);
  });
  it('that gets nowhere still ends', () => expect(simulateCharge(flat, 20, 70, { stallKW: 0 }).length).toBeLessThan(5000));
});

describe('a simulated visit', () => {
  it('is one that the record accepts, event by event', () => {
    for (const e of play([{ stallId: STALL_A, means: card, result: { is: 'fault', code: 'start_error', after_s: 40 } }, power]))
      expect(checkEvent(e, e.at)).toMatchObject({ ok: true, newer: false });
  });
  it('derives to what was planned', () => {
    const v = deriveVisit(VISIT, play([{ stallId: STALL_A, means: card, result: { is: 'fault', code: 'start_error', after_s: 40 } }, power]), payloadProblem);
    expect(v.attempts.map((a) => a.outcome.kind)).toEqual(['failed', 'power']);
    expect(v.attempts[1]?.times.handshake).toMatchObject({ known: true, s: 31 });
    expect(v.delivered.known && Number(v.delivered.value)).toBeCloseTo(30, 0);
    expect(v.average.known && v.average.value).toBeGreaterThan(45);
    expect(v.firstTry.answer).toBe('no');
  });
  it('the same plan and the same hands give the same events', () => expect(play([power])).toEqual(play([power])));
  it('refusals, claims and giving up come out as such', () => {
    const v = deriveVisit(
      VISIT,
      play(
        [
          { stallId: STALL_A, means: card, result: { is: 'refused', code: 'card_refused', shows: 2 } },
          { stallId: STALL_A, means: { kind: 'app' }, result: { is: 'claims', wait_s: 90, thenFault: false } },
        ],
        'gave_up',
      ),
      payloadProblem,
    );
    expect(v.attempts.map((a) => a.outcome.kind)).toEqual(['failed', 'gave_up']);
    expect(v.attempts[0]?.shows).toHaveLength(2);
  });
});
