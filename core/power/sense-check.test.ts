import { readingDoubt } from './sense-check';

describe('a reading is asked about, never blocked', () => {
  const before = [{ socPct: 61, kWh: '27.9', screen: 'stall' as const }];
  it('when the battery goes down', () => expect(readingDoubt({ socPct: 16 }, before, 150)).toMatch(/61 %/));
  it('when the meter goes back', () => expect(readingDoubt({ kWh: '2.8' }, before, 150)).toMatch(/27.9 kWh/));
  it('when the power is above the plate', () => expect(readingDoubt({ kW: 660 }, before, 150)).toMatch(/150 kW/));
  it('not when all is as usual', () => expect(readingDoubt({ socPct: 62, kWh: '28.6', kW: 66 }, before, 150)).toBeNull());
  it('not against a plate nobody knows', () => expect(readingDoubt({ kW: 660 }, [], null)).toBeNull());
});
