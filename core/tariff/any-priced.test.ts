import fc from 'fast-check';
import { type MileRecord, RECORDS } from '../records/record-schema';
import type { RecordType } from '../records/record-types';
import { deriveVisit } from '../visit/derive';
import type { StoredEvent } from '../visit/event';
import { anyAccepted } from '../visit/fixtures/any-accepted';
import { CARD, IN, idOf, KW, SITE, STALL_A, STALL_B, type Step, story, T0, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { billTotals, billVerdict, checkedBill } from './checked-bill';
import { costOfStaying, costSoFar, runningSession } from './cost-so-far';
import { billCost } from './expected-cost';
import { openItems } from './open-items';
import { NO_PRICE, objectOfPlain, type PlainPrice } from './plain-price';
import { compiledOf } from './tariff-object';
import { keptTariff } from './tariff-on';

const NETWORK = idOf(40);
const record = <T extends RecordType>(type: T, n: number, fields: object): MileRecord<T> =>
  ({ type, id: idOf(n), rev: 1, archived: false, fields: RECORDS[type].parse(fields) }) as MileRecord<T>;
const price = (n: number, said: Partial<PlainPrice>): MileRecord<'tariff'> => {
  const object = objectOfPlain({ ...NO_PRICE, ...said }, { id: idOf(n), currency: 'EUR', day: '1990-01-01' });
  return record('tariff', n, { networkId: NETWORK, siteId: SITE, currency: 'EUR', perKWh: '0.5', ...object, validFrom: '1990-01-01' });
};
/** Prices of every kind that the form knows. */
const PRICES = [
  price(60, { perKWh: '0.5', startFee: '1', taxOnTop: '20' }),
  price(61, { perKWh: '0.5', windows: [{ from: '19:00', to: '23:00', days: 'weekdays', perKWh: '0.7' }], perMin: '0.1', parkedPerMin: '0.2' }),
  price(62, {
    byPower: [
      { fromKW: '0', perMin: '0.09' },
      { fromKW: '22', perMin: '0.24' },
    ],
    freeMin: '15',
    minimum: '2',
  }),
  price(63, { perKWh: '0.3', idlePerMin: '0.25', idleAfterMin: '10', overstayFee: '12', overstayAfterMin: '120' }),
];
const site = record('site', 7, { networkId: NETWORK, name: 'Vrba Crossing', zone: 'Europe/Ljubljana' });
const stalls = [record('stall', 8, { siteId: SITE, name: '2', outlets: [{ connector: 'CCS2', ratedKW: 150 }] })];

function priced(events: readonly StoredEvent[]): unknown[] {
  const visit = { ...deriveVisit(VISIT, events, payloadProblem), siteId: SITE };
  return PRICES.flatMap((p) => {
    const around = { site, network: 'n', stalls, tariffs: [p], sites: [], plans: [], means: [], providers: [] };
    const checked = checkedBill(visit, around);
    // The sums alone are those of the whole check.
    const sums = checked && !('unpriced' in checked) ? { currency: checked.currency, total: checked.total, difference: checked.difference } : checked;
    expect(billTotals(visit, around)).toEqual(sums);
    const t = compiledOf(keptTariff(p));
    const running = visit.attempts.flatMap((a) => {
      if (!a.proof) return [];
      const charging = { ...a, proof: a.proof };
      const now = Math.max(T0 + 3_600_000, a.proof.t);
      return [costSoFar(t, visit, now), costOfStaying(t, runningSession(visit, charging, now))?.(5.1234567, 7.3, { min: 3.3, kWh: 2.2222 })];
    });
    return [checked, billVerdict(visit, around), openItems(visit, checked, '2025-10-15'), running];
  });
}
describe('any set of accepted events is priced, or it is said why not', () => {
  it('with no figure that is none, clocks that count parts of a millisecond too', () => {
    fc.assert(
      fc.property(anyAccepted(), fc.boolean(), (events, parts) => {
        const told = parts ? events.map((e, i) => ({ ...e, mono: e.mono + ((i * 3) % 10) / 10 })) : events;
        expect(JSON.stringify(priced(told))).not.toMatch(/NaN|Infinity/);
      }),
      { seed: 5, numRuns: 400 },
    );
  });
  it('what a visit has cost at its end is what its bill should come to, wherever each charge was read to its end', () => {
    const minutes = fc.integer({ min: 1, max: 90 });
    const session = fc.record({
      wait: minutes,
      first: minutes,
      pause: fc.boolean(),
      second: minutes,
      kWh: fc.integer({ min: 1, max: 60 }),
      stands: minutes,
      tries: fc.boolean(),
      unplugs: fc.boolean(),
    });
    let priced = 0;
    fc.assert(
      fc.property(fc.array(session, { minLength: 1, maxLength: 3 }), minutes, (sessions, after) => {
        let s = 0;
        const steps: Step[] = [IN];
        const then = (more_min: number, kind: Step[1], payload: Record<string, unknown> = {}) => {
          s += more_min * 60;
          steps.push([s, kind, payload]);
        };
        for (const [i, x] of sessions.entries()) {
          then(x.wait, 'stall_chosen', { stallId: i % 2 === 0 ? STALL_A : STALL_B });
          then(1, 'plugged');
          then(1, 'means_shown', CARD);
          then(1, 'power_seen', KW);
          then(x.first, 'reading', { screen: 'stall', kWh: String(x.kWh / 2) });
          if (x.pause) {
            then(1, 'change', { what: 'paused' });
            then(5, 'power_seen', KW);
          }
          then(x.second, 'power_gone', { why: 'asked' });
          then(0, 'reading', { screen: 'stall', kWh: String(x.kWh) });
          if (x.tries) {
            then(x.stands, 'means_shown', CARD);
            then(1, 'fault', { code: 'start_error', side: 'network' });
          }
          if (x.unplugs) then(x.stands, 'unplugged');
        }
        then(after, 'pulled_out', { reason: 'enough' });
        const visit = deriveVisit(VISIT, story(...steps), payloadProblem);
        for (const t of PRICES.map((p) => compiledOf(keptTariff(p)))) {
          const cost = costSoFar(t, visit, T0 + (s + 3600) * 1000);
          if (cost.known) priced += 1;
          expect(cost.known ? cost.value.total : cost.why).toBe(billCost(t, visit, { attempts: [] }));
        }
      }),
      { seed: 7, numRuns: 200 },
    );
    expect(priced).toBeGreaterThan(700);
  });
  it('a charge that a wrong clock or day makes years of is not cut at every midnight of them', () => {
    const end = Date.UTC(2099, 0, 1);
    const steps: Step[] = [
      IN,
      [5, 'stall_chosen', { stallId: STALL_A }],
      [20, 'plugged'],
      [30, 'means_shown', CARD],
      [60, 'power_seen', KW],
      [600, 'reading', { screen: 'stall', kWh: '20' }],
    ];
    const last: Step[] = [
      [0, 'power_gone', {}],
      [1, 'reading', { screen: 'stall', kWh: '40' }],
      [2, 'bill', { sessions: [], amount: '20', currency: 'EUR', state: 'charged' }],
    ];
    const typed = story(...last).map((e, i) => ({ ...e, id: idOf(300 + i), seq: 50 + i, at: end + i * 1000, origin: 'typed' as const }));
    const [checked, verdict] = priced([...story(...steps), ...typed]);
    expect([checked, verdict]).toEqual([{ unpriced: 'the charge would have lasted more than 62 days' }, null]);
  });
});
