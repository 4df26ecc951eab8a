import { deriveVisit } from './derive';
import { CARD, IN, KW, type Step, story, T0, VISIT } from './fixtures/story';
import { heldBack } from './held-back';
import { payloadProblem } from './payloads';

const charging: Step[] = [IN, [5, 'plugged'], [10, 'means_shown', CARD], [60, 'power_seen', KW]];
const kW = (s: number, value: number, screen = 'stall'): Step => [s, 'reading', { screen, kW: value }];
const change = (s: number, what: string): Step => [s, 'change', { what }];
const of = (...steps: Step[]) => {
  const v = deriveVisit(VISIT, story(...charging, ...steps), payloadProblem);
  return heldBack(v.line, v.attempts).map((h) => [h.what, (h.from.t - T0) / 1000, h.to && (h.to.t - T0) / 1000, h.before_kW, h.during_kW]);
};

describe('what sharing and climate cost while they lasted', () => {
  it('is the last kW before against the mean meanwhile, from coming to leaving', () =>
    expect(of(kW(100, 120), change(200, 'neighbour_in'), kW(220, 80), kW(300, 60), change(400, 'neighbour_out'), kW(420, 110))).toEqual([
      ['neighbour', 200, 400, 120, 70],
    ]));
  it('lasts to the end of the charge where nobody left, and on while it runs', () => {
    expect(of(kW(100, 120), change(200, 'climate_on'), kW(300, 112), [500, 'stop_asked', { by: 'button' }], kW(510, 0))).toEqual([
      ['climate', 200, 500, 120, 112],
    ]);
    expect(of(kW(100, 120), change(200, 'climate_on'), kW(300, 112))).toEqual([['climate', 200, null, 120, 112]]);
  });
  it('both at once are two, each with its own end', () =>
    expect(
      of(kW(100, 120), change(200, 'neighbour_in'), change(250, 'climate_on'), kW(300, 60), change(400, 'climate_off'), change(450, 'neighbour_out')),
    ).toEqual([
      ['neighbour', 200, 450, 120, 60],
      ['climate', 250, 400, 120, 60],
    ]));
  it('twice is two stretches', () =>
    expect(
      of(change(200, 'neighbour_in'), change(300, 'neighbour_out'), kW(350, 90), change(400, 'neighbour_in'), kW(420, 50), change(500, 'neighbour_out')),
    ).toEqual([
      ['neighbour', 200, 300, null, null],
      ['neighbour', 400, 500, 90, 50],
    ]));
  it('told a second time while it lasts it is one stretch, with what was before the first', () => {
    expect(of(kW(100, 120), change(200, 'neighbour_in'), kW(220, 60), change(230, 'neighbour_in'), kW(300, 50), change(400, 'neighbour_out'))).toEqual([
      ['neighbour', 200, 400, 120, 55],
    ]);
    expect(of(kW(100, 120), change(200, 'climate_on'), change(210, 'neighbour_in'), change(220, 'climate_on'), kW(300, 50)).map(([what]) => what)).toEqual([
      'climate',
      'neighbour',
    ]);
    // Noted on the way to power, and again once it flows.
    const v = deriveVisit(
      VISIT,
      story(IN, change(2, 'neighbour_in'), ...charging.slice(1), kW(100, 120), change(200, 'neighbour_in'), kW(300, 50)),
      payloadProblem,
    );
    expect(heldBack(v.line, v.attempts)).toHaveLength(1);
  });
  it('a reading too old, or none, says nothing of before; none meanwhile nothing of then', () => {
    expect(of(kW(100, 120), change(701, 'neighbour_in'), kW(720, 60))).toEqual([['neighbour', 701, null, null, 60]]);
    expect(of(kW(100, 120), change(700, 'neighbour_in'), kW(720, 60))).toEqual([['neighbour', 700, null, 120, 60]]);
    expect(of(kW(100, 120), change(200, 'neighbour_in'), change(300, 'neighbour_out'), kW(320, 110))).toEqual([['neighbour', 200, 300, 120, null]]);
  });
  it('one screen is never held against the other: the stall’s where it was read twice, else the car’s', () => {
    expect(of(kW(100, 120), kW(110, 112, 'car'), change(200, 'neighbour_in'), kW(220, 58, 'car'))).toEqual([['neighbour', 200, null, 112, 58]]);
    expect(of(kW(100, 120), kW(110, 112, 'car'), change(200, 'neighbour_in'), kW(220, 58, 'car'), kW(230, 62))).toEqual([['neighbour', 200, null, 120, 62]]);
    expect(of(kW(100, 120), change(200, 'neighbour_in'), kW(220, 58, 'car'))).toEqual([['neighbour', 200, null, 120, null]]);
  });
  it('before power, after the charge, and leaving without having come cost nothing', () => {
    const v = (...steps: Step[]) => deriveVisit(VISIT, story(IN, ...steps), payloadProblem);
    const early = v(change(2, 'neighbour_in'), [5, 'plugged'], [10, 'means_shown', CARD], [60, 'power_seen', KW], kW(100, 50));
    expect(heldBack(early.line, early.attempts)).toEqual([]);
    expect(of([300, 'stop_asked', { by: 'button' }], change(310, 'climate_on'))).toEqual([]);
    expect(of(change(200, 'neighbour_out'), change(210, 'climate_off'))).toEqual([]);
    const dead = v([5, 'plugged'], [10, 'means_shown', CARD], change(20, 'neighbour_in'), [90, 'pulled_out', { reason: 'gave_up' }]);
    expect(heldBack(dead.line, dead.attempts)).toEqual([]);
  });
});
