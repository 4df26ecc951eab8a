import { type StopVisit, stopTimes } from './stop';

const visit = (id: string, more: Partial<StopVisit> = {}): StopVisit => ({
  id,
  siteId: null,
  zone: 'UTC',
  pulledInAt: 0,
  pulledOutAt: 60_000,
  ended: 'none',
  lost_s: 30,
  ...more,
});
const HERE = visit('a');
const NEXT = visit('b', { pulledInAt: 360_000, pulledOutAt: 900_000, ended: 'charge', lost_s: 12 });

describe('a stop of several visits', () => {
  it('stands in the order of arrival, then of ids', () => {
    expect(stopTimes([NEXT, HERE]).visits.map((v) => v.id)).toEqual(['a', 'b']);
    expect(stopTimes([visit('z'), visit('y')]).visits.map((v) => v.id)).toEqual(['y', 'z']);
    expect(stopTimes([visit('y', { pulledInAt: 5 }), visit('z', { pulledInAt: null })]).visits.map((v) => v.id)).toEqual(['z', 'y']);
    expect(stopTimes([visit('a', { pulledInAt: null }), visit('b', { pulledInAt: -5 })]).visits.map((v) => v.id)).toEqual(['b', 'a']);
  });
  it('lost what its stalls took and the way from a site that gave nothing', () =>
    expect(stopTimes([HERE, NEXT])).toMatchObject({ atStalls_s: 42, onTheWay_s: 300 }));
  it('the way from a charge is no loss', () => expect(stopTimes([{ ...HERE, ended: 'charge' }, NEXT]).onTheWay_s).toBe(0));
  it('three in a row add up', () => {
    const third = visit('c', { pulledInAt: 1_000_000, pulledOutAt: null, ended: 'open', lost_s: 1 });
    expect(stopTimes([HERE, { ...NEXT, ended: 'none' }, third])).toMatchObject({ atStalls_s: 43, onTheWay_s: 400 });
  });
  it('is not known as soon as one part is not', () => {
    expect(stopTimes([{ ...HERE, lost_s: null }, NEXT]).atStalls_s).toBeNull();
    expect(stopTimes([HERE, { ...NEXT, lost_s: null }]).atStalls_s).toBeNull();
    expect(stopTimes([{ ...HERE, pulledOutAt: null }, NEXT]).onTheWay_s).toBeNull();
    // Arrived at the next before leaving the first: a clock is wrong.
    expect(stopTimes([{ ...HERE, pulledOutAt: 400_000 }, NEXT]).onTheWay_s).toBeNull();
    expect(stopTimes([{ ...HERE, pulledOutAt: 360_000 }, NEXT]).onTheWay_s).toBe(0);
    const later = visit('c', { pulledInAt: 1_000_000 });
    expect(stopTimes([{ ...HERE, pulledOutAt: null }, { ...NEXT, ended: 'none' }, later]).onTheWay_s).toBeNull();
  });
  it('of one visit is that visit’s, of none nothing', () => {
    expect(stopTimes([HERE])).toMatchObject({ atStalls_s: 30, onTheWay_s: 0 });
    expect(stopTimes([])).toEqual({ visits: [], atStalls_s: 0, onTheWay_s: 0 });
  });
});
