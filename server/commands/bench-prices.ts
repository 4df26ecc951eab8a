// How fast sessions are priced: a tariff of ten elements over the day, a session of sixty periods. Run by bin/bench.
import { billOf } from '@/core/tariff/bill';
import { compileTariff } from '@/core/tariff/compiled-tariff';
import { tariffOf } from '@/core/tariff/fixtures/sessions';

const RUNS = 2_000;
const hour = (n: number) => `${String(n % 24).padStart(2, '0')}:00`;
const compiled = compileTariff(
  tariffOf(
    Array.from({ length: 10 }, (_, i) => ({
      price_components: [
        { type: 'ENERGY', price: 0.3 + i / 100, vat: 20, step_size: 1 },
        { type: 'TIME', price: 1 + i, vat: 20, step_size: 60 },
      ],
      restrictions: { start_time: hour(i * 2), end_time: hour(i * 2 + 2) },
    })),
  ),
);
const start = Date.parse('2024-03-05T10:00:00Z');
const periods = Array.from({ length: 60 }, (_, i) => ({
  start: start + i * 60_000,
  end: start + (i + 1) * 60_000,
  kwh: i < 50 ? Number((1.5 - i / 100).toFixed(3)) : 0,
  charging: i < 50,
  power: null,
  current: null,
  occupancy: 0,
}));
let best = 0;
for (let round = 0; round < 5; round++) {
  const began = performance.now();
  for (let i = 0; i < RUNS; i++) billOf(compiled, { zone: 'Europe/Ljubljana', periods });
  best = Math.max(best, (RUNS * 1000) / (performance.now() - began));
}
console.log(`${'bills a second, ten elements and sixty periods (at least 5000)'.padEnd(64)} ${best.toFixed(0)}`);
