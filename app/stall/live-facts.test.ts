import { memory } from '@/client/store/fixtures/memory-storage';
import { phoneWho } from '@/client/store/fixtures/phone-who';
import { rememberMeans, rememberOrder } from '@/client/store/habits';
import { byType } from '@/client/store/records-by-type';
import { type MileRecord, recordItem } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { deriveVisit } from '@/core/visit/derive';
import { CARD, idOf, KW, SITE, STALL_A, type Step, story, T0, VISIT } from '@/core/visit/fixtures/story';
import { payloadProblem } from '@/core/visit/payloads';
import { type Live, liveFacts } from './live-facts';
import { secondPad, yellowPad } from './live-pads';
import type { StallHands } from './stall-state';

beforeEach(() => memory.clear());

const NETWORK = idOf(40);
const CAR = idOf(41);
const record = <T extends RecordType>(type: T, id: string, said: object): MileRecord =>
  ({ type, id, rev: 1, archived: false, fields: recordItem(type, id, said as never).fields }) as MileRecord;
const base = (stall: object = {}, site: object = {}): MileRecord[] => [
  record('network', NETWORK, { name: 'Otterbrook' }),
  record('site', SITE, { networkId: NETWORK, name: 'Sava Osier', zone: 'Europe/Ljubljana', ...site }),
  record('stall', STALL_A, { siteId: SITE, name: '4', outlets: [{ connector: 'CCS2', ratedKW: 150 }], ...stall }),
  record('car', CAR, { name: 'Heron 62', usableKWh: 62, connectors: ['CCS2'] }),
  record('means', idOf(42), { kind: 'contactless', label: 'Bank card' }),
  record('means', idOf(43), { kind: 'rfid', label: 'Tag' }),
  record('tariff', idOf(44), { networkId: NETWORK, currency: 'EUR', perKWh: '0.50', startFee: '0', validFrom: '2020-01-01' }),
];
const IN: Step = [0, 'pulled_in', { siteId: SITE, carId: CAR }];
const CHOSEN: Step = [5, 'stall_chosen', { stallId: STALL_A }];
const who = { ...phoneWho(), name: 'Ines' };

function live(records: MileRecord[], ...steps: Step[]): Live {
  const visit = deriveVisit(VISIT, story(...steps), payloadProblem);
  return { who, records: byType(records), lately: {}, usual: {}, dangers: {}, visit, visitId: VISIT } as unknown as Live;
}
const ways = { act: () => {}, open: () => {}, hands: {} as StallHands, pricing: null } as never;
const pads = (state: Live) => {
  const facts = liveFacts(state);
  return [yellowPad(state, facts, ways).text, secondPad(state, facts, ways).text];
};

describe('what it costs here', () => {
  const price = (n: number, more: object) =>
    record('tariff', idOf(n), { networkId: NETWORK, currency: 'EUR', perKWh: '0.40', validFrom: '2025-01-01', ...more });
  const plan = (from: string) => record('plan', idOf(60), { name: 'Otter plan', networkId: NETWORK, currency: 'EUR', from });
  const said = (...more: MileRecord[]) => {
    const { tariff, offers } = liveFacts(live([...base(), ...more], IN, CHOSEN));
    return [tariff?.perKWh, ...offers.map((o) => [o.tariff.perKWh, o.by])];
  };
  it('is the guest’s, with that of a plan beside it while it is held, and that one is taken', () => {
    expect(said()).toEqual(['0.50', ['0.50', null]]);
    expect(said(plan('2025-10-01'), price(61, { planId: idOf(60) }))).toEqual(['0.40', ['0.50', null], ['0.40', 'Otter plan']]);
    expect(said(plan('2025-11-01'), price(61, { planId: idOf(60) }))).toEqual(['0.50', ['0.50', null]]);
  });
  it('where there is a price for the plan alone, no guest’s is made of it', () => {
    const { offers } = liveFacts(live([...base().filter((r) => r.type !== 'tariff'), plan('2025-10-01'), price(61, { planId: idOf(60) })], IN, CHOSEN));
    expect(offers.map((o) => o.by)).toEqual(['Otter plan']);
  });
  it('through a provider is that of the means which is shown, or usual here', () => {
    const provider = record('provider', idOf(70), { name: 'Heron Card' });
    const tag = record('means', idOf(71), { kind: 'rfid', label: 'Heron tag', providerId: idOf(70) });
    const records = [...base(), provider, tag, price(72, { providerId: idOf(70) })];
    const by = (...steps: Step[]) => liveFacts(live(records, IN, CHOSEN, ...steps)).offers.map((o) => o.by);
    expect(by()).toEqual([null]);
    expect(by([20, 'plugged'], [30, 'means_shown', { meansKind: 'rfid', meansId: idOf(71) }])).toEqual([null, 'Heron Card']);
    rememberMeans(NETWORK, { meansKind: 'rfid', meansId: idOf(71) });
    expect(by()).toEqual([null, 'Heron Card']);
    expect(by([20, 'plugged'], [30, 'means_shown', { meansKind: 'contactless', meansId: idOf(42) }])).toEqual([null]);
  });
  it('is that of the day on which the visit began, after midnight too', () => {
    const begun = (at: string) => live(base(), [(Date.parse(at) - T0) / 1000, 'pulled_in', { siteId: SITE, carId: CAR }]);
    expect(liveFacts(begun('2025-10-14T21:55:00Z')).day).toBe('2025-10-14');
    expect(liveFacts(begun('2025-10-14T22:05:00Z')).day).toBe('2025-10-15');
  });
  it('a copy from before there were plans still holds', () => {
    const old = price(61, { perKWh: '0.44' });
    for (const name of ['planId', 'providerId', 'moreSiteIds', 'validUntil', 'tariff', 'extra']) delete (old.fields as Record<string, unknown>)[name];
    expect(said(old)[0]).toBe('0.44');
  });
  it('its fees run as clocks, unless the sign says otherwise', () => {
    const fees = (site: object) => {
      const tariff = {
        country_code: 'ZZ',
        party_id: 'OWN',
        id: 't',
        currency: 'EUR',
        last_updated: '2025-01-01T00:00:00Z',
        elements: [{ price_components: [{ type: 'FLAT', price: 0, step_size: 0 }] }],
      };
      const records = [...base({}, site), price(61, { tariff, extra: { overstay_fee: { after_minutes: 90, fee: 5 } } })];
      return liveFacts(live(records, IN, CHOSEN, [20, 'plugged'])).clocks.map((c) => [c.kind, (c.until - T0) / 60_000 - 1 / 3]);
    };
    expect(fees({})).toEqual([['overstay', 90]]);
    expect(fees({ overstayAfter_min: 60 })).toEqual([['overstay', 60]]);
  });
});

describe('what the pads propose', () => {
  it('follows a visit from the stall to the bill', () => {
    const steps: Step[] = [IN];
    const next = (...more: Step[]) => {
      steps.push(...more);
      return pads(live(base(), ...steps))[0];
    };
    expect(next()).toBe('Choose the stall');
    expect(next(CHOSEN)).toBe('Plugged in');
    expect(next([20, 'plugged'])).toBe('Card shown');
    expect(next([30, 'means_shown', CARD])).toBe('I see power');
    expect(next([60, 'power_seen', KW])).toBe('Add a reading');
    expect(next([900, 'stop_asked', { by: 'button' }])).toBe('Unplugged');
    expect(next([960, 'unplugged'])).toBe('Pulled out');
    expect(next([990, 'pulled_out', { reason: 'enough' }])).toBe('Bill');
    expect(next([1000, 'bill', { sessions: [], amount: '1', currency: 'EUR', state: 'charged' }])).toBe('Done');
  });
  it('takes the order that is noted, else the one that worked here or at the network', () => {
    expect(pads(live(base({ orderThatWorks: 'card, then plug' }), IN, CHOSEN))[0]).toBe('Card shown');
    expect(pads(live(base({}, { orderThatWorks: 'card, then plug' }), IN, CHOSEN))[0]).toBe('Card shown');
    rememberOrder(idOf(99), NETWORK, 'pay_first');
    expect(pads(live(base(), IN, CHOSEN))[0]).toBe('Card shown');
    rememberOrder(STALL_A, undefined, 'plug_first');
    expect(pads(live(base(), IN, CHOSEN))[0]).toBe('Plugged in');
  });
  it('names the means usual at the network', () => {
    rememberMeans(NETWORK, { meansKind: 'rfid', meansId: idOf(43) });
    expect(pads(live(base(), IN, CHOSEN, [20, 'plugged']))[0]).toBe('RFID card shown');
  });
  it('has the adapter fitted first where the car needs one, and none where it does not', () => {
    const adapter = record('adapter', idOf(45), { name: 'CHAdeMO box', from: 'CHAdeMO', to: 'CCS2', maxA: 125, maxV: 500 });
    const chademo = base({ outlets: [{ connector: 'CHAdeMO', ratedKW: 50 }] });
    const state = live([...chademo, adapter], IN, CHOSEN);
    expect(pads(state)[0]).toBe('Adapter fitted');
    expect(liveFacts(state).adapter?.id).toBe(idOf(45));
    expect(pads(live([...base(), adapter], IN, CHOSEN))[0]).toBe('Plugged in');
  });
  it('offers power again after it went unasked, and the way out after a failure', () => {
    const charging: Step[] = [IN, CHOSEN, [20, 'plugged'], [30, 'means_shown', CARD], [60, 'power_seen', KW]];
    expect(pads(live(base(), ...charging))[1]).toBe('I pressed stop');
    expect(pads(live(base(), ...charging, [300, 'power_gone', { why: 'unknown' }]))).toEqual(['Unplugged', 'Power again']);
  });
  it('beside it the card before the plug, the card again after a failure, the plug where the card comes first', () => {
    const second = (...steps: Step[]) => pads(live(base(), ...steps))[1];
    const failed: Step[] = [IN, CHOSEN, [20, 'plugged'], [30, 'means_shown', CARD], [60, 'fault', { code: 'start_error', side: 'network' }]];
    expect(second(IN, CHOSEN)).toBe('Card shown');
    expect(second(IN, CHOSEN, [20, 'plugged'])).toBe('Says charging');
    expect(second(IN, CHOSEN, [20, 'means_shown', CARD], [25, 'means_refused', CARD], [28, 'plugged'], [30, 'means_shown', CARD])).toBe('Says charging');
    expect(second(IN, CHOSEN, [20, 'plugged'], [30, 'means_shown', CARD], [40, 'claimed', { by: 'screen' }])).toBe('Card again');
    expect(second(...failed)).toBe('Card again');
    expect(second(...failed, [70, 'first_act', { what: 'again' }])).toBe('Unplugged');
    expect(second(...failed, [70, 'unplugged'])).toBe('Card shown');
    expect(pads(live(base({ orderThatWorks: 'card, then plug' }), IN, CHOSEN))).toEqual(['Card shown', 'Plugged in']);
    expect(second(IN, CHOSEN, [20, 'plugged'], [30, 'means_shown', CARD], [60, 'power_seen', KW], [90, 'unplugged'])).toBe('Left otherwise');
  });
  it('where the car is the means, other means beside the plug, and a start pressed again', () => {
    rememberMeans(NETWORK, { meansKind: 'free_vend' });
    const charged: Step[] = [
      IN,
      CHOSEN,
      [20, 'plugged'],
      [20, 'means_shown', { meansKind: 'free_vend' }],
      [60, 'power_seen', KW],
      [300, 'stop_asked'],
      [310, 'power_gone', { why: 'asked' }],
    ];
    expect(pads(live(base(), IN, CHOSEN))).toEqual(['Plugged in', 'Other means']);
    expect(pads(live(base(), ...charged))).toEqual(['Unplugged', 'Start again']);
    rememberMeans(NETWORK, { meansKind: 'contactless' });
  });
  it('says how a stop was made only where somebody did', () => {
    const made: unknown[] = [];
    const charging = live(base(), IN, CHOSEN, [20, 'plugged'], [30, 'means_shown', CARD], [60, 'power_seen', KW]);
    const noting = { ...(ways as object), act: (_: number, ...drafts: unknown[]) => made.push(...drafts) } as never;
    secondPad(charging, liveFacts(charging), noting).press(0);
    expect(made).toEqual([{ kind: 'stop_asked', payload: {} }]);
  });
  it('knows what a fault noted now is about', () => {
    const phase = (...steps: Step[]) => liveFacts(live(base(), ...steps)).phase;
    const charging: Step[] = [IN, CHOSEN, [20, 'plugged'], [30, 'means_shown', CARD], [60, 'power_seen', KW]];
    expect(phase(IN, CHOSEN, [20, 'plugged'])).toBe('starting');
    expect(phase(...charging)).toBe('charging');
    expect(phase(...charging, [300, 'stop_asked'])).toBe('stopping');
    expect(phase(...charging, [300, 'stop_asked'], [310, 'power_gone', { why: 'asked' }])).toBe('stopping');
    expect(phase(...charging, [300, 'unplugged'])).toBe('starting');
  });
});

describe('what stands beside the events', () => {
  it('money is in what somebody said on this visit, else in what the price on file is, else in the household’s', () => {
    const charging: Step[] = [IN, CHOSEN, [20, 'plugged'], [30, 'means_shown', CARD], [60, 'power_seen', KW]];
    const of = (records: MileRecord[], ...steps: Step[]) => {
      const { currency, currencies } = liveFacts(live(records, ...charging, ...steps));
      return [currency, ...currencies];
    };
    const nothing = base().filter((r) => r.type !== 'tariff');
    const francs = record('rate', idOf(70), { currency: 'CHF', into: 'EUR', rate: '1.05', on: '2025-01-01' });
    const pounds = record('tariff', idOf(71), { networkId: NETWORK, currency: 'GBP', perKWh: '0.60', validFrom: '2025-01-01' });
    expect(of(nothing)).toEqual(['EUR', 'EUR']);
    expect(of([...nothing, pounds, francs])).toEqual(['GBP', 'EUR', 'GBP', 'CHF']);
    expect(of(base(), [90, 'reading', { screen: 'stall', kW: 60 }])).toEqual(['EUR', 'EUR']);
    expect(of(base(), [90, 'reading', { screen: 'stall', cost: '12', currency: 'SEK' }], [120, 'reading', { screen: 'stall', kW: 60 }])[0]).toBe('SEK');
  });
  it('is from the phone’s own copy: price, plate, limits, the next full ten', () => {
    const facts = liveFacts(
      live(
        base({ maxStay_min: 45 }, { maxStay_min: 90, idleGrace_min: 5 }),
        IN,
        CHOSEN,
        [20, 'plugged'],
        [30, 'means_shown', CARD],
        [60, 'power_seen', KW],
        [120, 'reading', { screen: 'stall', socPct: 30, kW: 62 }],
      ),
    );
    expect([facts.ratedKW, facts.currency]).toEqual([150, 'EUR']);
    expect(facts.currencies).toEqual(['EUR']);
    // The stall's own limit goes before the site's.
    expect(facts.clocks).toEqual([{ kind: 'max_stay', until: T0 + 45 * 60_000 }]);
    // 62 kW into 62 kWh: ten per cent in six minutes.
    expect(facts.ten).toEqual({ pct: 40, at: T0 + 120_000 + 360_000 });
  });
  it('the usual handshake is shown while one waits, of this means at this stall', () => {
    const state = {
      ...live(base(), IN, CHOSEN, [20, 'plugged'], [30, 'means_shown', CARD]),
      usual: { [`${STALL_A} contactless`]: { s: 24, attempts: 5 } },
    } as Live;
    expect(liveFacts(state).usual).toEqual({ s: 24, attempts: 5, of: 'stall' });
    expect(liveFacts({ ...state, visit: live(base(), IN, CHOSEN).visit }).usual).toBeNull();
  });
});
