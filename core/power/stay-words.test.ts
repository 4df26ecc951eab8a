import type { NextStop, StayAdvice, StayAsked } from './stay-or-go';
import { leaveBelow, stayHeadline, stayReason, wholePct } from './stay-words';

const NOON = Date.UTC(2026, 5, 10, 12);
type Says = StayAdvice['says'];
const advice = (says: Says, more: Partial<Record<keyof StayAdvice, unknown>> = {}): StayAdvice =>
  ({
    nowPct: 40,
    readPct: 40,
    unread: false,
    pace: 1,
    kW: 60,
    atBest: false,
    need: null,
    leave: null,
    rows: [],
    minutesTo: () => null,
    projected: [],
    says,
    conflict: null,
    ...more,
  }) as StayAdvice;
const head = (says: Says, asked: Partial<StayAsked> = {}, more: Parameters<typeof advice>[1] = {}) =>
  stayHeadline(advice(says, more), { leg: null, next: null, spread: null, paused: false, ...asked }, NOON, 'Europe/Ljubljana');

const outlook = { n: 12, startShare: 0.913, handshake_min: 1, loss_min: 5, pace: null, paced: 0, lastSeen: null };
const next = (more: Partial<NextStop> = {}): NextStop => ({
  name: 'Lipa Barn',
  stall: 'no_stall',
  outlook,
  toThere: { km: 40, min: 30 },
  thereToEnd: { km: 40, min: 30 },
  direct: null,
  seenDaysAgo: 3,
  ...more,
});
const why = (says: Says, asked: Partial<StayAsked> = {}, more: Parameters<typeof advice>[1] = {}) =>
  stayReason(advice(says, more), { leg: null, next: null, reservePct: 10, kWhPer100km: 18, distance: 'km', paused: false, readAgo_min: 33, ...asked });

describe('the sentence above the board', () => {
  const leg = { km: 30, name: 'Kamen Toll' };
  it.each<[Says, Partial<StayAsked>, Parameters<typeof advice>[1], string]>([
    [{ is: 'stay', pct: 62.2, min: 9.4, why: 'leg' }, {}, {}, 'Stay until 63 %, about 9 min.'],
    [{ is: 'stay', pct: 62, min: 1, why: 'leg' }, {}, {}, 'Stay until 62 %, about 1 min.'],
    [{ is: 'stay', pct: 62, min: 0.99, why: 'leg' }, {}, {}, 'Stay until 62 %, under a minute.'],
    [{ is: 'stay', pct: 80, min: 230, why: 'leg' }, {}, {}, 'Stay until 80 %, about 3.8 h.'],
    [{ is: 'stay', pct: 62, min: 9, why: 'leg' }, {}, { atBest: true }, 'At best stay until 62 %, about 9 min.'],
    [{ is: 'go', why: 'leg', unseen: false }, { leg }, {}, 'Enough for Kamen Toll now.'],
    [{ is: 'go', why: 'leg', unseen: false }, {}, {}, 'Enough for the next leg now.'],
    [{ is: 'go', why: 'next', unseen: false }, { next: next() }, {}, 'Go on to Lipa Barn now.'],
    [{ is: 'go', why: 'next', unseen: false }, {}, { leave: { best: null } }, 'Go on to the next stop now.'],
    [{ is: 'go', why: 'next', unseen: true }, { next: next() }, {}, 'Go on to Lipa Barn, if it stands as noted.'],
    [{ is: 'go', why: 'next', unseen: true }, {}, {}, 'Go on to the next stop, if it stands as noted.'],
    [{ is: 'go', why: 'next', unseen: true }, { next: next() }, { leave: { best: { how: 'direct' } } }, 'Enough to drive straight on now.'],
    [{ is: 'either', minutes: 0.9 }, {}, {}, 'Staying or going is the same: do as you like.'],
    [{ is: 'either', minutes: 1 }, {}, {}, 'It makes 1 min at most: do as you like.'],
    [{ is: 'either', minutes: 1.6 }, {}, {}, 'It makes 2 min at most: do as you like.'],
    [{ is: 'either', minutes: 0.9 }, {}, { unread: true }, 'By now probably enough to go, and staying or going is the same: do as you like.'],
    [{ is: 'either', minutes: 1.6 }, {}, { unread: true }, 'By now probably enough to go, and it makes 2 min at most: do as you like.'],
    [{ is: 'cannot', shortByPct: 12.3 }, {}, {}, 'Not on one battery: 13 % short.'],
    [{ is: 'about', pct: 80, min: 37 }, {}, {}, 'About 80 % at 14:37.'],
    [{ is: 'about', pct: 80, min: 40 }, { spread: { low: 0.9, high: 1.2, n: 6 } as never }, {}, 'About 80 % at 14:40, between 14:36 and 14:48.'],
    // A band of less than a minute is none.
    [{ is: 'about', pct: 80, min: 4 }, { spread: { low: 0.95, high: 1.02, n: 6 } as never }, {}, 'About 80 % at 14:04.'],
    [{ is: 'about', pct: 80, min: 37 }, {}, { atBest: true }, 'At best about 80 % at 14:37.'],
    [{ is: 'slow' }, {}, { nowPct: 99.5 }, 'As full as it gets.'],
    [{ is: 'slow' }, {}, { nowPct: 99.4 }, 'At this power it does not get there.'],
    [{ is: 'slow' }, {}, { pace: 0 }, 'No power was shown last: it gets no fuller.'],
    // Reckoned, and not read.
    [{ is: 'slow' }, {}, { nowPct: 99.5, unread: true }, 'By now probably as full as it gets.'],
    [{ is: 'go', why: 'leg', unseen: false }, { leg }, { unread: true }, 'By now probably enough for Kamen Toll.'],
    [{ is: 'go', why: 'next', unseen: true }, { next: next() }, { unread: true }, 'By now probably enough to go on to Lipa Barn, if it stands as noted.'],
    [{ is: 'go', why: 'next', unseen: false }, { next: next() }, { unread: true }, 'By now probably enough to go on to Lipa Barn.'],
    [{ is: 'go', why: 'next', unseen: false }, {}, { unread: true, leave: { best: { how: 'direct' } } }, 'By now probably enough to drive straight on.'],
    // While it is paused there is no time of day.
    [{ is: 'about', pct: 80, min: 37 }, { paused: true, spread: { low: 0.9, high: 1.2, n: 6 } as never }, {}, 'Once power is back: about 37 min to 80 %.'],
    [{ is: 'about', pct: 80, min: 37 }, { paused: true }, { atBest: true }, 'Once power is back: at best about 37 min to 80 %.'],
    [{ is: 'stay', pct: 62, min: 9, why: 'leg' }, { paused: true }, {}, 'Once power is back: stay until 62 %, about 9 min.'],
    [{ is: 'go', why: 'leg', unseen: false }, { leg, paused: true }, {}, 'Enough for Kamen Toll now.'],
  ])('%j', (says, asked, more, said) => expect(head(says, asked, more)).toBe(said));
  it('a level that is needed is told upwards, but for a trace', () => expect([62, 62.04, 62.06, 63].map(wholePct)).toEqual(['62 %', '62 %', '63 %', '63 %']));
});

describe('why', () => {
  const about: Says = { is: 'about', pct: 80, min: 30 };
  it('what is missing', () => {
    const leg = { km: 30, name: 'Kamen Toll' };
    expect(why(about, { leg, kWhPer100km: null })).toEqual(['How much this car uses is not noted: nothing can be told of Kamen Toll.']);
    expect(why(about, { next: next(), kWhPer100km: 0 })).toEqual(['How much this car uses is not noted: nothing can be told of the way to Lipa Barn.']);
    expect(why(about, { kWhPer100km: null })).toEqual([]);
    expect(why(about, { next: next({ stall: 'no_curve' }) })).toEqual(['No curve of this car is on file: nothing can be told of charging at Lipa Barn.']);
    expect(why(about, { next: next() })).toEqual(['No stall at Lipa Barn that this car can use is on file: nothing can be told of charging there.']);
    expect(why(about, {}, { atBest: true })).toEqual(['No curve of this car is on file: reckoned with the power read last, which will fall.']);
    expect([0.9, 0.894, 0].map((pace) => why(about, {}, { pace }))).toEqual([[], ['Lately 89 % of the power expected came.'], []]);
    expect(why({ is: 'slow' }, {}, { pace: 0.2, nowPct: 99.5, readPct: 99 })).toEqual([]);
    expect(why(about, { paused: true })).toEqual(['Paused now.']);
    const READ = ['Read last: 40 %, 33 min ago. Look at the screen.'];
    expect([why(about, {}, { nowPct: 54.9 }), why(about, {}, { nowPct: 55, readPct: 40 }), why(about, {}, { unread: true })]).toEqual([[], READ, READ]);
    expect(why(about, {}, { conflict: { why: 'The fee after 45 min begins', in_min: 12.4 } })).toEqual(['The fee after 45 min begins in 12 min, before that.']);
    expect(why(about, {}, { conflict: { why: 'It closes', in_min: 0 } })).toEqual(['It closes in 0 min, before that.']);
    expect(why(about, {}, { conflict: { why: 'It closed', in_min: -3 } })).toEqual(['It closed 3 min ago.']);
    expect(why(about, {}, { conflict: { why: 'It closes', in_min: 130 } })).toEqual(['It closes in 2.2 h, before that.']);
  });
  it('a next leg, its reserve or its fallback, and with what it would arrive', () => {
    const asked = { leg: { km: 30, name: 'Kamen Toll' } };
    const need = { legPct: 31.4, reserveFrom: 'reserve', arrivalPct: null };
    expect(why(about, asked, { need })).toEqual(['For Kamen Toll 31 % and 10 % reserve.']);
    expect(why(about, asked, { need: { ...need, reserveFrom: 'fallback' } })).toEqual(['For Kamen Toll 31 % and the way to the fallback.']);
    const arrives = (usual: number, worst: number, best: number) => why(about, asked, { need: { ...need, arrivalPct: { usual, worst, best } } })[1];
    expect(arrives(8.6, -2, 12.4)).toBe('Left now, it would arrive with 9 %, between 0 and 12.');
    expect(arrives(8.6, 4.4, 12.4)).toBe('Left now, it would arrive with 9 %, between 4 and 12.');
    expect(arrives(55.8, 55.6, 56.4)).toBe('Left now, it would arrive with 56 %.');
    expect([arrives(0, -4, 3), arrives(-1, -4, 3)]).toEqual(Array(2).fill('Left now, it would not get there.'));
    expect(why(about, {}, { need })).toEqual([]);
  });
  const stop = { kind: 'dc' } as never;
  const leave = (best: object, more: object = {}) => ({ best, neededThere: 30, rule: {}, habit80: null, ...more });
  const of = (says: Says, best: object, more: object = {}, to: Partial<NextStop> = {}, asked: Partial<StayAsked> = {}) =>
    why(says, { next: next({ stall: stop, ...to }), ...asked }, { leave: leave(best, more) });
  const stay: Says = { is: 'stay', pct: 50, min: 9, why: 'next' };
  const go: Says = { is: 'go', why: 'next', unseen: false };
  const STARTS = '91 % of starts there succeed, by 12 and its network’s.';
  it('a next stop: which gives more, what the way takes, or that it is best passed by', () => {
    const via = { how: 'via', leavePct: 50 };
    expect(of(stay, via)).toEqual(['From there Lipa Barn, 40 km on, gives more on arrival than this stall gives here.', STARTS]);
    expect(of(stay, via, { rule: null })[0]).toBe(
      'From there Lipa Barn, 40 km on, gives more on arrival than this stall gives here, its stop and detour counted.',
    );
    expect(of(stay, { ...via, leavePct: 30.05 })[0]).toBe('That is what 40 km to Lipa Barn take, with 10 % reserve; staying on gains nothing.');
    expect(of(stay, { ...via, leavePct: 30.06 })[0]).toMatch(/^From there/);
    expect(of(go, { ...via, leavePct: 30 })).toEqual(['Lipa Barn, 40 km on, gives more than this stall from now on.', STARTS]);
    expect(of(go, via, {}, {}, { distance: 'mi' })[0]).toBe('Lipa Barn, 25 mi on, gives more than this stall from now on.');
    const need = { reserveFrom: 'fallback', arrivalPct: { usual: 12, worst: 9, best: 14 } };
    const needing = (best: object) => why(stay, { next: next({ stall: stop }) }, { need, leave: leave(best) });
    expect(needing({ ...via, leavePct: 30 }).slice(0, 2)).toEqual([
      'That is what 40 km to Lipa Barn take, with the way to the fallback; staying on gains nothing.',
      'Left now, it would arrive with 12 %, between 9 and 14.',
    ]);
    expect(needing({ how: 'direct', leavePct: 50 })).toHaveLength(3);
    expect(of({ is: 'either', minutes: 1 }, via)).toEqual(['Going at once and staying as long as most do come to the same in all.', STARTS]);
    expect(of(about, via)).toEqual([STARTS]);
    expect(of(stay, { how: 'direct', leavePct: 50 })).toEqual([
      'That is what the whole way takes, with 10 % reserve.',
      'Driving straight on is quicker than stopping at Lipa Barn.',
      STARTS,
    ]);
    expect(of(go, { how: 'direct', leavePct: 50 })).toEqual(['Driving straight on is quicker than stopping at Lipa Barn.', STARTS]);
  });
  it('what staying to 80 % would cost, where it can be done and costs something', () => {
    const cost = (habit80: object | null) => of(go, { how: 'via', leavePct: 40 }, { habit80 }).slice(1, -1);
    expect(cost({ feasible: true, costs_min: 1 })).toEqual(['Staying to 80 % would cost 1 min more in all.']);
    expect(cost({ feasible: true, costs_min: 390 })).toEqual(['Staying to 80 % would cost 6.5 h more in all.']);
    expect(cost({ feasible: true, costs_min: 6.6 })).toEqual(['Staying to 80 % would cost 7 min more in all.']);
    expect([cost({ feasible: true, costs_min: 0.99 }), cost({ feasible: false, costs_min: 6 }), cost(null)]).toEqual([[], [], []]);
  });
  it('what is known of that site: since when it was not seen, and by how much its starts are told', () => {
    const known = (to: Partial<NextStop>) => of(go, { how: 'via', leavePct: 40 }, {}, to).at(-1);
    expect(known({ seenDaysAgo: null })).toBe(`Lipa Barn was never seen; ${STARTS}`);
    expect(known({ seenDaysAgo: 30 })).toBe(STARTS);
    expect(known({ seenDaysAgo: 31 })).toBe(`Lipa Barn was not seen for 31 days; ${STARTS}`);
    expect(known({ outlook: { ...outlook, n: 0 } })).toBe('no start there on record: its network’s figures.');
  });
});

describe('the reading at which to leave', () => {
  const rule = { kWThere: 51.6, leaveBelowA: 132.4, leavePct: 60 };
  const by = (more: object = {}, of: object = {}, nowPct = 40) =>
    leaveBelow({ nowPct, leave: { best: { how: 'via' }, neededThere: 45, leaveOk: [55, 65], rule: { ...rule, ...of }, ...more } as never });
  it('in kW, and in amps where volts are known', () => {
    expect(by()).toBe('52 kW or 132 A on the screen');
    expect(by({}, { leaveBelowA: null })).toBe('52 kW on the screen');
  });
  it('not where the meter says something else than the best level, or nothing is best', () => {
    expect([by({ best: null }), by({ rule: null }), leaveBelow({ nowPct: 40, leave: null })]).toEqual([null, null, null]);
    expect([by({}, {}, 60), by({}, {}, 59.94)]).toEqual([null, expect.any(String)]);
    expect([by({ neededThere: 60 }), by({ neededThere: 59.94 })]).toEqual([null, expect.any(String)]);
    expect([54, 53.9, 66, 66.1].map((leavePct) => by({}, { leavePct }) !== null)).toEqual([true, false, true, false]);
  });
});
