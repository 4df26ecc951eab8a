import type { OcpiTariff } from '../records/ocpi-tariff';
import { billOf } from './bill';
import { billWords } from './bill-words';
import { compileTariff } from './compiled-tariff';
import { exampleStop } from './example-stop';
import { only, tariffOf, when } from './fixtures/sessions';
import { priceQuestions } from './price-questions';

const DAY = '2025-10-14';
const asked = (...elements: OcpiTariff['elements']) => priceQuestions(compileTariff(tariffOf(elements)), DAY).map((q) => q.text);
const gap = (times: string) => `Nothing is charged for charging ${times}. Is it free then?`;
const energyOn = (...day_of_week: string[]) => when(only('ENERGY', 0.5), { day_of_week } as never);
const MOST = ['WEDNESDAY', 'THURSDAY', 'FRIDAY', 'SATURDAY', 'SUNDAY'];

describe('when nothing is charged', () => {
  it('one, two and three times are named, of more the first three', () => {
    expect(asked(energyOn('TUESDAY', ...MOST))).toEqual([gap('Mon 00:00 to 24:00')]);
    expect(asked(energyOn(...MOST))).toEqual([gap('Mon 00:00 to 24:00, Tue 00:00 to 24:00')]);
    expect(asked(energyOn(...MOST.slice(1)))).toEqual([gap('Mon 00:00 to 24:00, Tue 00:00 to 24:00, Wed 00:00 to 24:00')]);
    expect(asked(energyOn(...MOST.slice(2)))).toEqual([gap('Mon 00:00 to 24:00, Tue 00:00 to 24:00, Wed 00:00 to 24:00 and 1 more')]);
  });
  it('pieces of a day that follow each other are one time, of two days they are two', () => {
    // Cut at 06:00 by a price of parking, nothing is charged before or after it.
    expect(asked(energyOn('TUESDAY', ...MOST), when(only('PARKING_TIME', 1), { start_time: '06:00' }))).toEqual([gap('Mon 00:00 to 24:00')]);
    expect(asked(when(only('ENERGY', 0.5), { start_time: '06:00', end_time: '06:30' }))).toEqual([
      gap('Mon 00:00 to 06:00, Mon 06:30 to 24:00, Tue 00:00 to 06:00 and 11 more'),
    ]);
  });
  it('the same time every day is said so; not the same on one day, each is named', () => {
    expect(asked(when(only('TIME', 6), { start_time: '05:30' }))).toEqual([gap('every day 00:00 to 05:30')]);
    expect(asked(when(only('ENERGY', 0.5), { start_time: '06:00' }), when(only('ENERGY', 0.5), { start_time: '05:00', day_of_week: ['SUNDAY'] }))).toEqual([
      gap('Mon 00:00 to 06:00, Tue 00:00 to 06:00, Wed 00:00 to 06:00 and 4 more'),
    ]);
  });
});

describe('prices that never come up', () => {
  const never = (n: number, what: string) => `Price ${n} for ${what} never comes up: one before it holds at all of its times. Is the order right?`;
  it('are told of each kind of price', () => {
    const twice = (type: 'ENERGY' | 'FLAT' | 'TIME' | 'PARKING_TIME') =>
      asked(only('ENERGY', 0.5), only(type, 1), only(type, 2)).filter((t) => t.startsWith('Price 3'));
    expect([twice('FLAT'), twice('TIME'), twice('PARKING_TIME'), twice('ENERGY')]).toEqual([
      [never(3, 'the start')],
      [never(3, 'time charging')],
      [never(3, 'time parked')],
      [never(3, 'energy')],
    ]);
  });
  it('not where the one before is of other hours, of other days, or of another kind', () => {
    expect(asked(when(only('ENERGY', 0.3), { start_time: '22:00', end_time: '06:00' }), when(only('ENERGY', 0.5), { start_time: '05:00' }))).toEqual([]);
    expect(
      asked(
        when(only('ENERGY', 0.3), { start_time: '00:00', end_time: '12:00' }),
        only('ENERGY', 0.5),
        when(only('ENERGY', 0.4), { start_time: '06:00', end_time: '08:00' }),
      ),
    ).toEqual([never(3, 'energy')]);
    expect(asked(only('ENERGY', 0.5), only('FLAT', 1))).toEqual([]);
  });
  it('one that holds on no day at all is no matter of order', () =>
    expect(
      asked(only('ENERGY', 0.5), when(only('ENERGY', 0.3), { start_date: '2030-01-01' }), when(only('ENERGY', 0.2), { reservation: 'RESERVATION' })),
    ).toEqual([]));
});

describe('a bill in words', () => {
  const words = (elements: OcpiTariff['elements'], kWh = 10) =>
    billWords(billOf(compileTariff(tariffOf(elements)), exampleStop('UTC', Date.parse('2025-10-14T10:00:00Z'), kWh, 30)), 'UTC');
  it('says what was rounded up to a step, and prices without zeros that say nothing', () => {
    expect(words([only('ENERGY', 0.5, 1000)], 10.2).lines).toEqual([
      { label: 'Energy', how: '11.0 kWh up to its step × 0.50 per kWh, 10:00 to 10:30', amount: '5.50' },
    ]);
    expect(words([only('ENERGY', 0.505)]).lines[0]?.how).toContain('× 0.505 per kWh');
    expect(words([only('ENERGY', 1.0203)]).lines[0]?.how).toContain('× 1.0203 per kWh');
    expect(words([only('ENERGY', 100)]).lines[0]?.how).toContain('× 100.00 per kWh');
  });
  it('a start that costs nothing is told where it is all there is', () => {
    expect(words([only('FLAT', 0)]).lines).toEqual([{ label: 'Start', how: '', amount: '0.00' }]);
    expect(words([only('FLAT', 0), only('ENERGY', 0.5)]).lines.map((l) => l.label)).toEqual(['Energy']);
    expect(words([only('ENERGY', 0)]).lines).toEqual([]);
  });
});
