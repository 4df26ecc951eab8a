import { usableBattery } from './usable-battery';

it('usable energy is told from six charges that fill different parts of the battery', () => {
  const charges = (n: number, deltaPct: (i: number) => number) =>
    Array.from({ length: n }, (_, i) => ({ deltaPct: deltaPct(i), kWh: 0.6 * deltaPct(i) + 0.5 }));
  expect(
    usableBattery(
      charges(5, (i) => 20 + 10 * i),
      null,
    ),
  ).toEqual({ chargesUsed: 5, usableKWh: null, why: 'fewer than 6 charges of 20 % or more' });
  expect(
    usableBattery(
      charges(6, () => 50),
      null,
    ),
  ).toEqual({ chargesUsed: 6, usableKWh: null, why: 'all charges filled the same part of the battery' });
  // Twenty per cent count; what every charge loses at its start does not.
  expect(
    usableBattery(
      charges(6, (i) => 20 + 10 * i),
      null,
    ),
  ).toMatchObject({ chargesUsed: 6, usableKWh: expect.closeTo(60, 9), healthPct: null });
  expect(
    usableBattery(
      charges(6, (i) => 20 + 10 * i),
      75,
    ),
  ).toMatchObject({ healthPct: expect.closeTo(80, 9) });
  expect(
    usableBattery(
      charges(6, (i) => 19.9 + 10 * i),
      null,
    ),
  ).toMatchObject({ chargesUsed: 5, usableKWh: null });
});
