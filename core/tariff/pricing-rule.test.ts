import { draftQuery } from './bill-query';
import { compileTariff } from './compiled-tariff';
import { only, tariffOf } from './fixtures/sessions';
import { pricingRuleQuestion } from './pricing-rule';

// Regulation (EU) 2023/1804, Art. 5, and the UK's Public Charge Point Regulations 2023; both from memory.
describe('whether this way of charging may not be allowed', () => {
  const minutes = compileTariff(tariffOf([only('TIME', 12)]));
  const both = compileTariff(tariffOf([only('ENERGY', 0.5), only('TIME', 12)]));
  const energy = compileTariff(tariffOf([only('ENERGY', 0.5), only('FLAT', 1), only('PARKING_TIME', 6)]));
  const byPower = compileTariff(tariffOf([only('FLAT', 0)]), { power_time: { tiers: [{ min_power: 0, price_per_min: 0.2 }] } });
  const freeMinutes = compileTariff(tariffOf([only('ENERGY', 0.5), only('TIME', 0)]));
  const asked = (t: typeof minutes, zone = 'Europe/Vienna', mostKW: number | null = 150, day = '2025-10-14') =>
    pricingRuleQuestion(t, { zone, mostKW }, day)?.slice(0, 34) ?? null;
  it('in the EU: minutes of charging at 50 kW and more, from 13 April 2024 on', () => {
    for (const t of [minutes, both, byPower]) expect(asked(t)).toBe('May a guest be asked a price a min');
    for (const t of [energy, freeMinutes]) expect(asked(t)).toBeNull();
    expect([asked(minutes, 'Europe/Vienna', 50), asked(minutes, 'Europe/Vienna', 49.9), asked(minutes, 'Europe/Vienna', null)]).toEqual([
      'May a guest be asked a price a min',
      null,
      null,
    ]);
    expect([asked(minutes, 'Europe/Vienna', 150, '2024-04-12'), asked(minutes, 'Europe/Vienna', 150, '2024-04-13')]).toEqual([
      null,
      'May a guest be asked a price a min',
    ]);
    expect(['Europe/Ljubljana', 'Asia/Nicosia', 'Europe/Zurich', 'America/New_York'].map((z) => asked(minutes, z) !== null)).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });
  it('in the UK: no price per kWh, from 24 November 2024 on', () => {
    expect(asked(minutes, 'Europe/London', 7)).toBe('May this be priced by the minute a');
    expect(asked(byPower, 'Europe/London', null)).toBe('May this be priced by the minute a');
    for (const t of [both, energy]) expect(asked(t, 'Europe/London')).toBeNull();
    expect(asked(minutes, 'Europe/London', 7, '2024-11-23')).toBeNull();
  });
});

it('a query names what is known and nothing else', () => {
  const text = draftQuery({
    network: 'Ferrywell',
    site: 'Brod Landing',
    stall: '',
    zone: 'Europe/Ljubljana',
    from: null,
    to: null,
    kWh: null,
    charged: '5',
    expected: '4',
    currency: 'EUR',
    bills: [{ amount: '5', currency: 'EUR', ref: null }],
    lines: [{ label: 'Energy', how: '', amount: '4' }],
    explanations: [],
  });
  expect(text.split('\n').slice(0, 5)).toEqual([
    'To Ferrywell',
    '',
    'I charged at Brod Landing.',
    'I was charged €5.00. By your price it should be €4.00:',
    '- Energy: €4.00',
  ]);
});
