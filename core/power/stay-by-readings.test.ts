import { asked, flatFrom, next, SLOW, say, why } from './fixtures/stay-asked';
import { type StayAsked, stayOrGo } from './stay-or-go';

describe('what nobody has read yet', () => {
  // At 120 kW a per cent takes 18.6 s.
  const later = (minutes: number, more: Partial<StayAsked> = {}) => asked({ now_min: 6.2 + minutes, readAgo_min: minutes, ...more });
  it('is told as probable: enough for a leg by the clock, not by the screen', () => {
    // 80 km and the reserve are 33.2 %: read. 110 km are 41.9 %: reckoned a minute after 40 % were read.
    const leg = (km: number) => ({ leg: { km, name: `the next ${km} km` } });
    expect(say(later(1, leg(80)))).toBe('Enough for the next 80 km now.');
    expect(say(later(1, leg(110)))).toBe('By now probably enough for the next 110 km.');
    expect(why(later(1, leg(110)))).toContain('Read last: 40 %, 1 min ago. Look at the screen.');
    // 40.4 % are 40 % on a screen.
    expect([stayOrGo(later(1, leg(104.7)))?.unread, stayOrGo(later(1, leg(105.5)))?.unread]).toEqual([false, true]);
  });
  it('that going is as good as staying holds only once one can go', () => {
    // The same power at any level, here and there: 106 km and the reserve are 40.8 %.
    const as = (km: number) => stayOrGo({ ...flatFrom(40), now_min: 7.2, next: next(150, { toThere: { km, min: km } }) });
    expect([as(84), as(106)].map((a) => [a?.says.is, a?.unread])).toEqual([
      ['either', false],
      ['either', true],
    ]);
  });
  it('a battery that nobody saw full is probably full', () => {
    expect(say(later(200))).toBe('By now probably as full as it gets.');
    expect(stayOrGo(later(3))).toMatchObject({ readPct: 40, unread: false });
    expect(why(later(6))).toBe('Read last: 40 %, 6 min ago. Look at the screen.');
  });
  it('the level for the way to a next stop, and for driving straight on past it', () => {
    const toThere = (km: number): Partial<StayAsked> => ({ next: next(300, { toThere: { km, min: km } }) });
    expect(stayOrGo(later(1, { ...SLOW, now_min: 30, ...toThere(84) }))).toMatchObject({ says: { is: 'go' }, unread: false });
    expect(stayOrGo(later(1, { ...SLOW, now_min: 30, ...toThere(108) }))).toMatchObject({ says: { is: 'go' }, unread: true });
    const direct = (km: number) => later(1, { ...SLOW, now_min: 30, next: next(22, { direct: { km, min: km } }) });
    expect([100, 108].map((km) => stayOrGo(direct(km))?.unread)).toEqual([false, true]);
    expect(say(direct(108))).toBe('By now probably enough to drive straight on.');
  });
});

describe('power as it was shown last', () => {
  it('corrects what is to come before the level tells', () => {
    const at = (kW: number) => asked({ shown: { min: 6.2, kW } });
    expect(say(at(60))).toBe('About 80 % at 14:34.');
    expect(why(at(60))).toBe('Lately 50 % of the power expected came.');
    expect(say(at(0))).toBe('No power was shown last: it gets no fuller.');
    expect(stayOrGo(at(0))).toMatchObject({ says: { is: 'slow' }, nowPct: 40, rows: [{ minutes: null }] });
    // What is in the battery is not less for it.
    expect(say({ ...at(0), leg: { km: 80, name: 'the next 80 km' } })).toBe('Enough for the next 80 km now.');
    expect(say({ ...at(0), next: next(150) })).toBe('Go on to Hollin Bridge now.');
    expect(say({ ...at(0), next: next(150, { toThere: { km: 120, min: 90 } }) })).toBe('No power was shown last: it gets no fuller.');
  });
});

describe('the fallback should the next stop fail', () => {
  // 84 km are 24.4 %; 80 km more are 23.2 %, 30 km are 8.7 %.
  const to = (fallback_km: number | null, more: Partial<StayAsked> = {}) =>
    asked({ next: next(150), leg: { km: 84, name: 'the way to Hollin Bridge' }, fallback_km, ...more });
  it('is within reach on arrival there, or the reserve is, whichever is more', () => {
    const there = (fallback_km: number | null) => stayOrGo(to(fallback_km))?.leave?.neededThere;
    expect([there(null), there(30), there(80)]).toEqual([34.387, 34.387, 47.613].map((pct) => expect.closeTo(pct, 3)));
    expect(stayOrGo(to(30))?.need).toMatchObject({ fallbackPct: expect.closeTo(8.71, 2), reserveFrom: 'reserve' });
    expect(stayOrGo(to(null))?.need?.fallbackPct).toBeNull();
  });
  it('is more than the way on from there: one leaves with it all the same, and charges nothing there', () => {
    const short = next(150, { thereToEnd: { km: 10, min: 8 } });
    expect(stayOrGo(to(80, { next: short }))).toMatchObject({ says: { is: 'stay', pct: expect.closeTo(47.613, 3) } });
    expect(why(to(80, { next: short }))).toContain('That is what 84 km to Hollin Bridge take, with the way to the fallback; staying on gains nothing.');
    expect(why(to(80, { next: short }))).toContain('Left now, it would arrive with 16 %, between 12 and 18.');
    expect(say(to(280))).toBe('Not on one battery: 6 % short.');
    expect(why(to(280))).toContain('For the way to Hollin Bridge 24 % and the way to the fallback.');
  });
});
