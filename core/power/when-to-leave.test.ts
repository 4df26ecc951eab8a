import type { LimitStall } from './limits';
import { type LeaveAsked, whenToLeave } from './when-to-leave';

// 60 kWh at 20 kWh for 100 km: 3 km to the per cent.
const car = {
  usableKWh: 60,
  V0: 300,
  V100: 400,
  curve: [
    [0, 20],
    [30, 20],
    [30, 120],
    [100, 120],
  ] as const,
};
const dc = (plateKW: number): LimitStall => ({ kind: 'dc', plateKW });
const asked = (more: Partial<LeaveAsked> = {}): LeaveAsked => ({
  car,
  here: { stall: dc(60) },
  there: { stall: dc(150), handshake_min: 0, startShare: 1, loss_min: 0 },
  nowPct: 40,
  mode: 'anyway',
  legs: { toThere: { km: 60, min: 45 }, thereToEnd: { km: 210, min: 150 } },
  kWhPer100km: 20,
  reservePct: 0,
  ...more,
});

const plan = (more: Partial<LeaveAsked> = {}) => {
  const found = whenToLeave(asked(more));
  if (!found.best) throw new Error('no plan');
  return found;
};

describe('when to leave', () => {
  it('the rule waits until the next post can give more on arrival, where the car’s curve steps up', () => {
    // Below 30 % the car takes 20 kW anywhere: arriving with 30 % means leaving with 50.
    expect(plan().rule).toMatchObject({ leavePct: 50, kWHere: 60, kWThere: 120, leaveBelowA: expect.closeTo(120_000 / 350, 9) });
    expect(plan({ here: { stall: dc(150) } }).rule).toMatchObject({ leavePct: 90, kWHere: 120 });
    expect(plan({ here: { stall: dc(10) } }).rule).toMatchObject({ leavePct: 40, kWHere: 10, kWThere: 20 });
  });
  it('amps are told at a rapid post with known volts alone', () => {
    const ac: LimitStall = { kind: 'ac', plateKW: 11 };
    expect(plan({ car: { ...car, onboardKW: 11 }, here: { stall: ac } }).rule).toMatchObject({ kWHere: 11, leaveBelowA: null });
    expect(plan({ car: { ...car, V0: null } }).rule).toMatchObject({ leaveBelowA: null });
  });
  it('of plans that cost the same the quicker one is the cheapest, of these the one that leaves at the lower level', () => {
    // Two posts alike at one price: what is charged where is the same money, in the same time by a level curve.
    const level = { ...car, curve: [[0, 60]] as const };
    const alike = plan({ car: level, here: { stall: dc(60), price: { perKWh: 0.5 } }, there: { ...asked().there, stall: dc(60), price: { perKWh: 0.5 } } });
    expect(alike.money).toMatchObject({ disagree: false, cheapest: { leavePct: 40, money: expect.closeTo(15, 9) } });
    // The slower post here at the same price: leaving at once is the quickest, and as cheap.
    const slower = plan({ car: level, here: { stall: dc(30), price: { perKWh: 0.5 } }, there: { ...asked().there, stall: dc(60), price: { perKWh: 0.5 } } });
    expect(slower.money).toMatchObject({ disagree: false, cheapest: { leavePct: 40 } });
    // The quicker one here: staying as long as one may.
    const quicker = plan({ car: level, here: { stall: dc(60), price: { perKWh: 0.5 } }, there: { ...asked().there, stall: dc(30), price: { perKWh: 0.5 } } });
    expect(quicker.money).toMatchObject({ disagree: false, cheapest: { leavePct: 90 } });
  });
  it('leaving at 80 % is told up to there, and no level beyond what can be left with is tried', () => {
    expect(plan({ nowPct: 80 }).habit80).toMatchObject({ feasible: true });
    expect(plan({ nowPct: 80.1 }).habit80).toBeNull();
    expect(plan({ nowPct: 90 })).toMatchObject({ advice: 'go_now', best: { leavePct: 90 } });
    const direct = whenToLeave(asked({ mode: 'extra', legs: { ...asked().legs, direct: { km: 300, min: 220 } } }));
    expect(direct).toMatchObject({ neededDirect: 100, bestDirect: { leavePct: 100 } });
    expect(whenToLeave(asked({ mode: 'extra', legs: { ...asked().legs, direct: { km: 301, min: 220 } } })).bestDirect).toBeNull();
  });
  it('money is told where either place has a price', () => {
    const money = (here: object | null, there: object | null) =>
      plan({ here: { stall: dc(60), price: here }, there: { ...asked().there, price: there } }).money;
    expect(money(null, null)).toBeNull();
    expect(money({ perKWh: 0.5 }, null)?.cheapest).toMatchObject({ money: 0, leavePct: 40 });
    // All of it here: 50 % of 60 kWh.
    expect(money(null, { perKWh: 0.5 })?.cheapest).toMatchObject({ money: 0, leavePct: 90 });
    const both = money({ perKWh: 0.5 }, { perKWh: 0.5, sessionFee: 1 });
    // The same wherever it is charged: the quicker of them, then the one that leaves first.
    expect(both?.cheapest).toMatchObject({ leavePct: 50, money: expect.closeTo(16, 9) });
    expect(both?.disagree).toBe(false);
    expect(money({ perKWh: 0.5 }, { perKWh: 0.4 })).toMatchObject({ cheapest: { leavePct: 40, money: expect.closeTo(12, 9) }, disagree: true });
  });
  it('what it lacks is the least over the plans', () => {
    const far = { toThere: { km: 330, min: 200 }, thereToEnd: { km: 30, min: 20 } };
    expect(whenToLeave(asked({ legs: far }))).toMatchObject({ best: null, shortByPct: expect.closeTo(10, 9) });
    expect(whenToLeave(asked({ legs: { ...far, direct: { km: 315, min: 190 } }, mode: 'extra' }))).toMatchObject({
      best: null,
      shortByPct: expect.closeTo(5, 9),
    });
    expect(whenToLeave(asked({ legs: { ...far, direct: { km: 345, min: 190 } }, mode: 'extra' }))).toMatchObject({
      best: null,
      shortByPct: expect.closeTo(10, 9),
    });
  });
  it('what most do is told up to where they do it', () => {
    const habit = (nowPct: number) => plan({ nowPct }).habit80;
    expect(habit(79)).toMatchObject({ feasible: true });
    expect(habit(80)).toMatchObject({ feasible: true, costs_min: expect.any(Number) });
    expect(habit(81)).toBeNull();
    const far = { toThere: { km: 270, min: 200 }, thereToEnd: { km: 30, min: 20 } };
    expect(plan({ legs: far }).habit80).toEqual({ feasible: false });
  });
  it('levels are tried from now on, by steps to the top', () => {
    const at = (more: Partial<LeaveAsked>) => plan(more).totalAt.map((t) => t.leavePct);
    expect(at({})).toEqual([40, 50, 60, 70, 80, 90]);
    expect(at({ nowPct: 41 })).toEqual([50, 60, 70, 80, 90]);
    expect(at({ mode: 'extra', legs: { ...asked().legs, direct: { km: 285, min: 180 } } })).toEqual([40, 50, 60, 70, 80, 90, 100]);
    expect(plan({ stepPct: 7, here: { stall: dc(150) } }).best?.leavePct).toBe(56);
  });
});
