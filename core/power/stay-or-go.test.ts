import { asked, car, dc, flatFrom, next, SLOW, say, why } from './fixtures/stay-asked';
import { type StayAsked, stayOrGo } from './stay-or-go';
import { leaveBelow } from './stay-words';

describe('stay or go', () => {
  it('says nothing under two readings', () => {
    expect(stayOrGo(asked({ levels: [{ min: 0, socPct: 20 }] }))).toBeNull();
    expect(stayOrGo(asked({ levels: [] }))).toBeNull();
  });
  it('without a leg it says when the battery will be at 80 %, with a band where past sessions give one', () => {
    // 40 to 80 % from 120 to 60 kW: 24.8 kWh over a mean of 60 / ln 2 = 86.6 kW are 17.2 min.
    expect(say(asked())).toBe('About 80 % at 14:17.');
    expect(say(asked({ spread: { low: 0.9, high: 1.2, n: 8, held: 0.75 } }))).toBe('About 80 % at 14:17, between 14:15 and 14:20.');
    expect(say(asked({ curved: false }))).toBe('At best about 80 % at 14:17.');
    expect(why(asked({ curved: false }))).toContain('No curve of this car is on file');
    expect(
      say(
        asked({
          levels: [
            { min: 0, socPct: 60 },
            { min: 8, socPct: 80 },
          ],
          now_min: 8,
        }),
      ),
    ).toMatch(/^About 100 % at/);
    expect(
      say(
        asked({
          levels: [
            { min: 0, socPct: 80 },
            { min: 30, socPct: 100 },
          ],
          now_min: 30,
        }),
      ),
    ).toBe('As full as it gets.');
  });
  it('each reading corrects it: half of the power expected takes twice as long', () => {
    const slow = asked({
      levels: [
        { min: 0, socPct: 20 },
        { min: 6.2, socPct: 30 },
        { min: 12.4, socPct: 40 },
      ],
      now_min: 12.4,
    });
    expect(stayOrGo(slow)?.pace).toBeCloseTo(0.5, 6);
    expect(say(slow)).toBe('About 80 % at 14:34.');
    expect(why(slow)).toContain('Lately 50 % of the power expected came.');
    // A neighbour who came lately counts, not the whole session.
    const lately = asked({
      levels: [
        { min: 0, socPct: 20 },
        { min: 3.1, socPct: 30 },
        { min: 9.3, socPct: 40 },
      ],
      now_min: 9.3,
    });
    expect(stayOrGo(lately)?.pace).toBeCloseTo(0.5, 6);
  });
  it('a next leg asks for its way and the reserve, or the way to the fallback', () => {
    // 180 km × 18 / 62 = 52.3 %, and 10 %.
    const leg = { km: 180, name: 'the next 180 km' };
    expect(say(asked({ leg }))).toBe('Stay until 63 %, about 8 min.');
    expect(stayOrGo(asked({ leg }))?.need?.neededPct).toBeCloseTo(62.258, 3);
    expect(why(asked({ leg }))).toContain('Left now, it would not get there.');
    expect(why(asked({ leg: { km: 120, name: 'the next 120 km' } }))).toContain('Left now, it would arrive with 5 %, between 0 and 9.');
    expect(stayOrGo(asked({ leg, fallback_km: 60 }))?.need?.reserveFrom).toBe('fallback');
    expect(say(asked({ leg: { km: 80, name: 'the next 80 km' } }))).toBe('Enough for the next 80 km now.');
    expect(say(asked({ leg: { km: 400, name: 'the next 400 km' } }))).toBe('Not on one battery: 27 % short.');
    const late = asked({ leg, deadlines: [{ why: 'Max stay ends', in_min: 5 }] });
    expect(stayOrGo(late)?.conflict).toEqual({ why: 'Max stay ends', in_min: 5 });
    expect(why(late)).toContain('Max stay ends in 5 min, before that.');
  });
  it('a known next site: go when it gives more, stay when it gives less, and say so when it makes no difference', () => {
    const slowHere = asked({
      setting: { car, stall: dc(30) },
      levels: [
        { min: 0, socPct: 20 },
        { min: 24.8, socPct: 40 },
      ],
      now_min: 24.8,
    });
    expect(say({ ...slowHere, next: next(150) })).toBe('Go on to Hollin Bridge now.');
    expect(say({ ...slowHere, next: next(150, { seenDaysAgo: 90 }) })).toBe('Go on to Hollin Bridge, if it stands as noted.');
    expect(why({ ...slowHere, next: next(150, { seenDaysAgo: 90 }) })).toContain('Hollin Bridge was not seen for 90 days');
    expect(say(asked({ next: next(22) }))).toMatch(/^Stay until \d+ %, about \d+ min\.$/);
    expect(say(asked({ next: next(150) }))).toBe('Go on to Hollin Bridge now.');
    // The same power at any level here and there: it makes no difference when one leaves.
    const flat = { ...car, curve: [[0, 60]] as [number, number][] };
    const even = asked({
      setting: { car: flat, stall: dc(150) },
      levels: [
        { min: 0, socPct: 20 },
        { min: 12.4, socPct: 40 },
      ],
      now_min: 12.4,
    });
    expect(say({ ...even, next: next(150) })).toBe('Staying or going is the same: do as you like.');
    const stay = stayOrGo(asked({ next: next(50) }));
    // Leave when the car's taper falls to what the next post gives.
    expect(stay && leaveBelow(stay)).toMatch(/^50 kW/);
    expect(say(asked({ next: next(150, { toThere: { km: 400, min: 300 } }) }))).toMatch(/^Not on one battery/);
  });
  it('why nothing is told of a next site or a leg: no curve, no stall that it can use, or what it uses is not noted', () => {
    const near = asked({ next: next(150, { stall: 'no_curve' }) });
    expect(stayOrGo(near)).toMatchObject({ leave: null, says: { is: 'about', pct: 80 } });
    expect(why(near)).toBe('No curve of this car is on file: nothing can be told of charging at Hollin Bridge.');
    expect(why(asked({ next: next(150, { stall: 'no_stall' }) }))).toBe(
      'No stall at Hollin Bridge that this car can use is on file: nothing can be told of charging there.',
    );
    const thirst = { kWhPer100km: null, kWhPer100kmRange: null };
    expect(why(asked({ ...thirst, next: next(150) }))).toBe('How much this car uses is not noted: nothing can be told of the way to Hollin Bridge.');
    expect(why(asked({ ...thirst, leg: { km: 90, name: 'the next 90 km' } }))).toBe(
      'How much this car uses is not noted: nothing can be told of the next 90 km.',
    );
    expect(why(asked(thirst))).toBe('');
  });
  it('a next stall of alternating current takes what its charger loses besides', () => {
    const total = (efficiency?: number) => {
      const leave = stayOrGo(asked({ next: next(11, { stall: { stall: { kind: 'ac', plateKW: 11 }, efficiency } }) }))?.leave;
      return leave?.best ? (leave.totalAt[0]?.via as number) : Number.NaN;
    };
    const [plain, lossy] = [total(), total(0.9)];
    // What is charged there, for 84 and 150 km at 18 kWh and a reserve of 10 %, at 11 kW.
    const kWh = (62 * ((234 * 18) / 62 + 10 - 40)) / 100;
    expect(lossy - plain).toBeCloseTo(((kWh / 0.9 - kWh) / 11) * 60, 6);
  });
  it('a next stall at which nothing flows is no way there, and the battery is not too small for it', () => {
    const dead = { stall: { stall: { kind: 'dc' as const, plateKW: 150, deratedKW: 0 } } };
    // Everything here, to the level at which none is wanted there: 234 km at 18 kWh and the reserve.
    expect(stayOrGo(asked({ next: next(150, dead) }))?.says).toMatchObject({ is: 'stay', pct: expect.closeTo((234 * 18) / 62 + 10, 6) });
    // More than one battery in all, half of it there: that cannot be done there.
    expect(say(asked({ next: next(150, { ...dead, thereToEnd: { km: 280, min: 200 } }) }))).toBe('At this power it does not get there.');
    expect(stayOrGo(asked({ next: next(150, { toThere: { km: 400, min: 300 } }) }))?.says).toMatchObject({
      is: 'cannot',
      shortByPct: expect.closeTo((400 * 18) / 62 + 10 - 100, 9),
    });
  });
  it('as one likes is said only where going at once can be done: what is needed first is said, however little it makes after', () => {
    // Flat curves here and there: from the level that the way needs on it makes no difference. 84 km at 18 kWh and 10 %: 34.4 %.
    expect(say(flatFrom(40))).toBe('Staying or going is the same: do as you like.');
    expect(stayOrGo(flatFrom(20))?.says).toMatchObject({ is: 'stay', pct: expect.closeTo((84 * 18) / 62 + 10, 6), why: 'next' });
    expect(say(flatFrom(20))).toBe('Stay until 35 %, about 9 min.');
  });
  it('past what most charge to, and with all that the way needs, it is as honest: staying on is held against going too', () => {
    // 85 % is more than the 77.9 % that the whole way takes: nothing is left to be gained by staying.
    expect(say(flatFrom(85))).toBe('Go on to Hollin Bridge now.');
    // The way takes all of it, and from 85 % on this car takes less here than it would there.
    const far = (socPct: number) =>
      asked({
        levels: [
          { min: 0, socPct: socPct - 5 },
          { min: 4, socPct },
        ],
        next: next(150, { thereToEnd: { km: 250, min: 187 } }),
        now_min: 4,
      });
    expect(stayOrGo(far(85))?.says).toMatchObject({ is: 'go', why: 'next' });
    expect(stayOrGo(far(90))?.says).toMatchObject({ is: 'go', why: 'next' });
    // The same power anywhere: staying to full or going is the same.
    expect(stayOrGo({ ...flatFrom(85), next: next(150, { thereToEnd: { km: 250, min: 187 } }) })?.says).toMatchObject({ is: 'either' });
  });
  it('the meter is named only where it says the same as the best level', () => {
    const below = (a: StayAsked) => {
      const advice = stayOrGo(a);
      return advice && leaveBelow(advice);
    };
    expect(below(asked({ next: next(50) }))).toMatch(/^50 kW/);
    // The post there gives more already: the meter shows less from the first moment on.
    expect(below(asked({ ...SLOW, next: next(150) }))).toBeNull();
    // It will show 100 kW at 53 %, where the battery does not yet hold the 250 km to the post.
    const far = { toThere: { km: 250, min: 187 } };
    expect(stayOrGo(asked({ next: next(100, far) }))?.leave).toMatchObject({ neededThere: expect.closeTo((250 * 18) / 62 + 10, 9) });
    expect(below(asked({ next: next(100, far) }))).toBeNull();
    // The curve dips and recovers: to go by the meter would be to leave in the dip.
    const dip = [
      [0, 120],
      [45, 120],
      [46, 40],
      [50, 40],
      [51, 120],
      [90, 120],
      [100, 20],
    ] as const;
    const through = stayOrGo(asked({ setting: { car: { ...car, curve: dip }, stall: dc(150) }, next: next(60) }));
    expect(through?.leave?.best && [Math.round(through.leave.rule?.leavePct ?? 0), Math.round(through.leave.best.leavePct)]).toEqual([46, 78]);
    expect(through && leaveBelow(through)).toBeNull();
    expect(below(asked())).toBeNull();
  });
  it('says what its level rests on: the way alone, the next post, or the whole way where no stop is wanted', () => {
    const flat = flatFrom(20);
    expect(why(flat)).toMatch(/^That is what 84 km to Hollin Bridge take, with 10 % reserve; staying on gains nothing\. 90 % of starts/);
    expect(why({ ...flat, distance: 'mi' })).toContain('52 mi to Hollin Bridge');
    expect(why(asked({ next: next(50) }))).toMatch(/^From there Hollin Bridge, 84 km on, gives more on arrival than this stall gives here\. /);
    expect(why(asked({ ...SLOW, next: next(150) }))).toMatch(/^Hollin Bridge, 84 km on, gives more than this stall from now on\. /);
    // Straight on is 100 km: 29 % and the reserve are there already, or come soon.
    const direct = { direct: { km: 100, min: 75 } };
    const on = asked({ next: next(150, direct) });
    expect(say(on)).toBe('Enough to drive straight on now.');
    expect(why(on)).toMatch(/^Driving straight on is quicker than stopping at Hollin Bridge\. /);
    const soon = asked({ next: next(22, { direct: { km: 150, min: 112 } }) });
    expect(say(soon)).toMatch(/^Stay until 54 %, /);
    expect(why(soon)).toMatch(/^That is what the whole way takes, with 10 % reserve\. Driving straight on is quicker/);
  });
  it('when the battery will be how full, at any level and not only at those drawn', () => {
    const advice = stayOrGo(
      asked({
        levels: [
          { min: 0, socPct: 20 },
          { min: 6.2, socPct: 40 },
        ],
        setting: { car: { ...car, curve: [[0, 120]] }, stall: dc(150) },
      }),
    );
    // 0.62 kWh a per cent at 120 kW: 18.6 s.
    expect(advice?.minutesTo(41)).toBeCloseTo(0.31, 9);
    expect(advice?.minutesTo(63)).toBeCloseTo(23 * 0.31, 9);
    expect(advice?.minutesTo(40)).toBe(0);
    expect(advice?.minutesTo(20)).toBe(0);
  });
  it('costs follow the pricing handed in, and every row adds to the sum so far', () => {
    const rows = stayOrGo(asked())?.rows ?? [];
    expect(rows.map((r) => r.to)).toEqual([50, 60, 70, 80, 90, 100]);
    expect(rows[0]?.money).toBeCloseTo(3.1, 9);
    expect(rows.at(-1)?.moneySoFar).toBeCloseTo(18.6, 9);
  });
});

describe('what the advice rests on', () => {
  const at = (socPct: number, more: Partial<StayAsked> = {}) =>
    asked({
      levels: [
        { min: 0, socPct: socPct - 10 },
        { min: 1, socPct },
      ],
      now_min: 1,
      ...more,
    });
  it('every second per cent to the last, with the band about its minutes', () => {
    const levels = (a: StayAsked) => stayOrGo(a)?.projected ?? [];
    expect(levels(asked()).map((p) => p.socPct)).toEqual(Array.from({ length: 31 }, (_, i) => 40 + 2 * i));
    expect(levels(at(95)).map((p) => p.socPct)).toEqual([95, 97, 99, 100]);
    expect(levels(at(100)).map((p) => p.socPct)).toEqual([100]);
    const banded = levels(asked({ spread: { low: 0.8, high: 1.5, n: 8, held: 0.75 } }));
    expect(banded[0]).toEqual({ socPct: 40, min: 0, low: 0, high: 0 });
    // 2 % of 62 kWh from 120 to 117 kW.
    const min = (60 * 1.24 * Math.log(117 / 120)) / -3;
    expect(banded[1]).toEqual({ socPct: 42, min: expect.closeTo(min, 9), low: expect.closeTo(0.8 * min, 9), high: expect.closeTo(1.5 * min, 9) });
    expect(levels(asked())[1]).toEqual({ socPct: 42, min: expect.closeTo(min, 9), low: expect.closeTo(min, 9), high: expect.closeTo(min, 9) });
    // A curve that falls to nothing is projected as far as it goes.
    const stops: [number, number][] = [
      [0, 120],
      [80, 60],
      [90, 0],
    ];
    expect(levels(asked({ setting: { car: { ...car, curve: stops }, stall: dc(150) } })).at(-1)?.socPct).toBe(88);
  });
  it('nothing where nothing is known to limit', () => expect(stayOrGo(asked({ setting: { car: {}, stall: { kind: 'dc' } } }))).toBeNull());
  it('power now, and what each row gives', () => {
    const advice = stayOrGo(asked());
    expect([advice?.kW, advice?.nowPct, advice?.atBest]).toEqual([expect.closeTo(120, 6), 40, false]);
    expect(advice?.rows[0]?.range_km).toBeCloseTo((0.1 * 62) / 0.18, 9);
    expect(stayOrGo(asked({ kWhPer100km: null }))?.rows[0]?.range_km).toBeNull();
  });
  it('what the session comes to, as it is told', () => {
    const says = (a: StayAsked) => stayOrGo(a)?.says;
    const leg = { km: 180, name: 'the next 180 km' };
    const need = (180 * 18) / 62 + 10;
    expect(says(asked({ leg }))).toEqual({ is: 'stay', pct: need, min: expect.any(Number), why: 'leg' });
    expect(says(asked({ leg: { km: 80, name: '' } }))).toEqual({ is: 'go', why: 'leg', unseen: false });
    expect(says(asked({ leg: { km: 400, name: '' } }))).toEqual({ is: 'cannot', shortByPct: expect.closeTo((400 * 18) / 62 + 10 - 100, 9) });
    // What is not known of its consumption cannot be asked for.
    expect(says(asked({ leg, kWhPer100km: null }))).toMatchObject({ is: 'about', pct: 80 });
    const stops: [number, number][] = [
      [0, 120],
      [40, 120],
      [55, 0],
    ];
    expect(says(asked({ leg, setting: { car: { ...car, curve: stops }, stall: dc(150) } }))).toEqual({ is: 'slow' });
    expect(says(asked({ setting: { car: { ...car, curve: stops }, stall: dc(150) } }))).toEqual({ is: 'slow' });
    // Just under 80 % it is told when it will be full.
    expect([says(at(78.9)), says(at(79)), says(at(99.4)), says(at(99.5))]).toMatchObject([
      { is: 'about', pct: 80 },
      { is: 'about', pct: 100 },
      { is: 'about', pct: 100 },
      { is: 'slow' },
    ]);
  });
  it('the fallback is asked for only where there is one', () => {
    const leg = { km: 100, name: '' };
    expect(stayOrGo(asked({ leg, reservePct: 0, fallback_km: null }))?.need).toMatchObject({ reserveFrom: 'reserve', reserveUsedPct: 0 });
    expect(stayOrGo(asked({ leg, reservePct: 0, fallback_km: 31 }))?.need).toMatchObject({ reserveFrom: 'fallback', reserveUsedPct: expect.closeTo(9, 9) });
  });
  it('the soonest limit that comes before the level, none where one goes', () => {
    const [late, soon] = [
      { why: 'Idle fee', in_min: 16 },
      { why: 'Max stay ends', in_min: 9 },
    ];
    const conflict = (a: StayAsked) => stayOrGo(a)?.conflict;
    expect(conflict(asked({ deadlines: [late, soon] }))).toEqual(soon);
    expect(conflict(asked({ deadlines: [late] }))).toEqual(late);
    expect(conflict(asked({ deadlines: [{ why: 'later', in_min: 18 }] }))).toBeNull();
    expect(conflict(asked())).toBeNull();
    const leg = { km: 180, name: '' };
    const until = stayOrGo(asked({ leg }))?.need?.stayUntil_min as number;
    expect(conflict(asked({ leg, deadlines: [{ why: 'then', in_min: until }] }))).toBeNull();
    expect(conflict(asked({ leg, deadlines: [{ why: 'then', in_min: until - 0.01 }] }))).toEqual({ why: 'then', in_min: until - 0.01 });
    expect(conflict(asked({ leg: { km: 80, name: '' }, deadlines: [{ why: 'gone', in_min: -5 }] }))).toEqual({ why: 'gone', in_min: -5 });
    expect(conflict(asked({ deadlines: [{ why: 'gone', in_min: -5 }, late, soon] }))).toEqual(soon);
    expect(
      conflict(
        asked({
          deadlines: [
            { why: 'gone', in_min: -5 },
            { why: 'later', in_min: 18 },
          ],
        }),
      ),
    ).toEqual({ why: 'gone', in_min: -5 });
    expect(conflict(asked({ deadlines: [{ why: 'just now', in_min: 0 }] }))).toEqual({ why: 'just now', in_min: 0 });
  });
  it('a next site gives what its sessions gave, and the whole of it where none are known', () => {
    const here = { setting: { car, stall: dc(30) } };
    const best = (pace: number | null) =>
      stayOrGo(asked({ ...here, next: next(50, { outlook: { ...next(50).outlook, pace } }) }))?.leave?.bestVia?.total_min as number;
    expect(best(null)).toBe(best(1));
    expect(best(0.9)).toBeGreaterThan(best(1));
  });
  it('straight on stands beside the stop, and the sooner of the two is told', () => {
    const direct = { km: 230, min: 172 };
    const extra = stayOrGo(asked({ next: next(150, { direct }) }));
    expect(extra?.leave?.bestDirect).not.toBeNull();
    expect(stayOrGo(asked({ next: next(150) }))?.leave?.bestDirect).toBeNull();
    expect(stayOrGo(asked({ next: next(22, { direct }) }))?.says).toMatchObject({ is: 'stay', why: 'next', pct: expect.closeTo((230 * 18) / 62 + 10, 6) });
  });
  it('to a site that nobody saw for more than thirty days, or ever, one is not sent without a word', () => {
    const says = (seenDaysAgo: number | null) => stayOrGo(asked({ ...SLOW, next: next(150, { seenDaysAgo }) }))?.says;
    expect([says(30), says(31), says(null)]).toEqual([false, true, true].map((unseen) => ({ is: 'go', why: 'next', unseen })));
  });
});
