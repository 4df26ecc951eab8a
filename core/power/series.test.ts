import { bandsOf, rangeOf, tensRead } from './bands';
import { energyCheck } from './energy-check';
import { type Charge, type SeriesReading, seriesOf } from './series';
import { seriesAt } from './series-at';

const look = (t_s: number, more: Partial<SeriesReading>): SeriesReading => ({ t_s, from: 'stall', ...more });
const charge = (readings: readonly SeriesReading[], more: Partial<Charge> = {}) => seriesOf({ readings, ...more });

describe('a charge at its edges', () => {
  it('cannot end before its power, and may end with it', () => {
    expect(() => charge([], { end: { t_s: -1 } })).toThrow(new RangeError('a charge cannot end before its power'));
    const none = charge([look(-20, { socPct: 41 })], { end: { t_s: 0, kWh: 3 } });
    expect(none).toMatchObject({ charging_s: 0, mean_kW: null, wentDown: { soc: [], kWh: [] } });
    expect([none.soc?.x, none.soc?.y]).toEqual([[0], [41]]);
  });
  it('what nobody read is nothing, not none', () => {
    const empty = charge([]);
    expect(empty).toMatchObject({
      soc: null,
      known: [],
      power: [],
      peak_kW: null,
      mean_kW: null,
      delivered_kWh: null,
      charging_s: null,
      source: { soc: null, kWh: null, kW: null },
    });
    expect([bandsOf(empty, { usableKWh: 60, kWhPer100km: 18 }), tensRead(empty), energyCheck(empty)]).toEqual([[], [], null]);
    // A single level is no band of anything.
    expect(tensRead(charge([look(0, { socPct: 44 }), look(90, { socPct: 44 })]))).toEqual([]);
  });
  it('the last look before the start and the first after the end count there, where nothing else was read', () => {
    const looks = [look(-90, { socPct: 20 }), look(-30, { socPct: 21 }), look(300, { socPct: 30 }), look(640, { socPct: 40 }), look(700, { socPct: 41 })];
    const knots = (s: ReturnType<typeof charge>) => s.soc?.x.map((x, i) => [x, s.soc?.y[i]]);
    expect(knots(charge(looks, { end: { t_s: 600 } }))).toEqual([
      [0, 21],
      [300, 30],
      [600, 40],
    ]);
    // In whatever order they were written down.
    expect(knots(charge([...looks].reverse(), { end: { t_s: 600 } }))).toEqual(knots(charge(looks, { end: { t_s: 600 } })));
    expect(knots(charge([...looks, look(0, { socPct: 22 }), look(600, { socPct: 39 })], { end: { t_s: 600 } }))).toEqual([
      [0, 22],
      [300, 30],
      [600, 39],
    ]);
    expect(knots(charge(looks))).toEqual([
      [0, 21],
      [300, 30],
      [640, 40],
      [700, 41],
    ]);
  });
  it('the meter starts at nothing, whatever a screen showed, and ends at what was typed', () => {
    const s = charge([look(-5, { kWh: 9 }), look(0, { kWh: 8 }), look(60, { kWh: 2 }), look(600, { kWh: 19 })], { end: { t_s: 600, kWh: 20 } });
    expect([s.kWh.x, s.kWh.y, s.delivered_kWh, s.mean_kW]).toEqual([[0, 60, 600], [0, 2, 20], 20, 120]);
    const open = charge([look(60, { kWh: 2 }), look(600, { kWh: 19 })], { end: { t_s: 600 } });
    expect([open.delivered_kWh, open.mean_kW]).toEqual([19, 114]);
    expect(charge([look(60, { kWh: 2 })], { end: { t_s: 600 } }).delivered_kWh).toBeNull();
    expect(charge([], { end: { t_s: 600 } })).toMatchObject({ delivered_kWh: null, mean_kW: null });
    // What fell is told by where it stood; the start never is.
    expect(charge([look(60, { kWh: 5 }), look(120, { kWh: 4 }), look(180, { kWh: 6 })], { end: { t_s: 240, kWh: 1 } }).wentDown.kWh).toEqual([1, 'end']);
  });
  it('after the end nothing is told, before it everything that was read', () => {
    const s = charge([look(0, { socPct: 20, kW: 100 }), look(300, { socPct: 30, kW: 90 })], { end: { t_s: 300, kWh: 8 } });
    expect(seriesAt(s, 300)).toMatchObject({ socPct: 30, kWh: 8, kW: 90, how: 'read' });
    expect([seriesAt(s, 301), seriesAt(s, -1)]).toEqual(Array(2).fill({ socPct: null, kWh: null, kW: null, how: 'not_read' }));
    expect(seriesAt(charge([look(0, { socPct: 20 })]), 10)).toMatchObject({ kW: null, how: 'not_read' });
  });
});

it.each([
  [10, { usableKWh: 60, kWhPer100km: 20 }, 30],
  [10, { usableKWh: null, kWhPer100km: 20 }, null],
  [10, { usableKWh: 60, kWhPer100km: null }, null],
  [10, { usableKWh: 60, kWhPer100km: 0 }, null],
  [10, { usableKWh: 60, kWhPer100km: -1 }, null],
] as const)('%d %% of %j are %s km', (pct, by, km) => expect(rangeOf(pct, by)).toBe(km));
