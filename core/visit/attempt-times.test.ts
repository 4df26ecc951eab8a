import { type AttemptTimes, attemptTimes, chargingEnd, chargingSoFar, lastRequiredAct, meansOf, TIME_RULES } from './attempt-times';
import type { Attempt } from './attempts/attempt';
import { deriveVisit } from './derive';
import { APP, CARD, IN, KW, STALL_A, type Step, story, T0, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';

const attempt = (...steps: Step[]) =>
  deriveVisit(VISIT, story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...steps), payloadProblem).attempts.at(-1) as Attempt & { times: AttemptTimes };
const times = (...steps: Step[]) => attempt(...steps).times;
/** Seconds, or the reason there are none. */
const said = (...steps: Step[]) => Object.fromEntries(Object.entries(times(...steps)).map(([name, d]) => [name, d.known ? d.s : d.why]));
const plug: Step = [60, 'plugged'];
const card: Step = [75, 'means_shown', CARD];
const yes: Step = [90, 'means_accepted', CARD];
const power: Step = [100, 'power_seen', KW];
const gone = (at: number, more: object = {}): Step => [at, 'power_gone', { why: 'asked', ...more }];

it('each time with its rule, in words', () =>
  expect(TIME_RULES).toEqual({
    handshake: {
      label: 'Handshake',
      rule: 'later of the last plugging in and the last showing of the means before it was accepted, to the first proof of power; where no means was noted at most plugging in to power',
    },
    authorisation: { label: 'Authorisation', rule: 'first showing of the means to its acceptance' },
    setUp: { label: 'Set-up', rule: 'later of plugging in and acceptance to the first proof of power' },
    plugToPower: { label: 'Plug to power', rule: 'last plugging in to the first proof of power' },
    meansToPower: { label: 'Means to power', rule: 'first showing of the means to the first proof of power' },
    handsOn: { label: 'Hands-on', rule: 'first act at the stall to the first proof of power' },
    plugCardGap: { label: 'Plug–card gap', rule: 'plugging in to the first showing of the means; negative when the card came first' },
    charging: {
      label: 'Charging',
      rule: 'first proof of power to power gone, else stop pressed, else the ending fault; pauses taken out, and a pause that never ended is the end',
    },
  }));

describe('the times of an attempt', () => {
  it('plug, card, accepted, power, stopped', () =>
    expect(said(plug, card, yes, power, gone(700))).toEqual({
      handshake: 25,
      authorisation: 15,
      setUp: 10,
      plugToPower: 40,
      meansToPower: 25,
      handsOn: 40,
      plugCardGap: 15,
      charging: 600,
    }));
  it('card first, then the plug', () =>
    expect(said([50, 'means_shown', CARD], [55, 'means_accepted', CARD], plug, power)).toMatchObject({
      handshake: 40,
      authorisation: 5,
      setUp: 40,
      plugToPower: 40,
      meansToPower: 50,
      handsOn: 50,
      plugCardGap: -10,
      charging: 'still charging, or the end was not recorded',
    }));
  it('the handle taken and an adapter fitted are hands-on, from the first of them', () => {
    expect(said([40, 'first_act', { what: 'handle' }], plug, card, power).handsOn).toBe(60);
    expect(said([45, 'adapter_fitted', {}], [50, 'first_act', { what: 'handle' }], plug, card, power).handsOn).toBe(55);
  });
  it('without power nothing that ends in it is known, and what is before it stays', () =>
    expect(said(plug, card, yes)).toEqual({
      handshake: 'no power was seen',
      authorisation: 15,
      setUp: 'no power was seen',
      plugToPower: 'no power was seen',
      meansToPower: 'no power was seen',
      handsOn: 'no power was seen',
      plugCardGap: 15,
      charging: 'no power was seen',
    }));
  it('what was not noted is said', () => {
    expect(said(card, power)).toMatchObject({
      handshake: 'plugging in was not recorded',
      authorisation: 'acceptance was not recorded',
      setUp: 'acceptance was not recorded',
      plugToPower: 'plugging in was not recorded',
      plugCardGap: 'plugging in was not recorded',
    });
    expect(said(card, yes, power).setUp).toBe('plugging in was not recorded');
    expect(said(plug, power)).toMatchObject({
      authorisation: 'no means was shown',
      meansToPower: 'no means was shown',
      plugCardGap: 'no means was shown',
      handshake: 40,
    });
    expect(times(plug, power).handshake).toMatchObject({ bound: 'at_most' });
    expect(said(plug, yes, power).handshake).toBe(40);
    expect(said(plug).handshake).toBe('no power was seen');
    expect(said(power)).toMatchObject({ handsOn: 'no act was recorded', handshake: 'plugging in was not recorded' });
  });
  it('a plug left in from before says so', () => {
    const before: Step[] = [plug, card, [80, 'fault', { code: 'start_error', side: 'network' }]];
    expect(said(...before, [100, 'means_shown', CARD], [105, 'means_accepted', CARD], [130, 'power_seen', KW])).toMatchObject({
      handshake: 30,
      plugToPower: 'plugged earlier',
      setUp: 'plugged earlier',
      plugCardGap: 'plugged earlier',
      meansToPower: 30,
    });
    expect(said(...before, [130, 'power_seen', KW]).handshake).toBe('plugged in earlier, and no means was shown since');
    // Plugged anew it counts from the plug.
    expect(said(...before, [110, 'plugged'], [130, 'power_seen', KW])).toMatchObject({ plugToPower: 20 });
  });
  it('the car as its own means runs from the plug, however a card was shown', () => {
    const car = { meansKind: 'autocharge' };
    expect(said(plug, [60, 'means_shown', car], power).handshake).toBe(40);
    expect(lastRequiredAct(attempt(plug, [70, 'means_shown', car], [80, 'means_accepted', car]))).toMatchObject({ kind: 'plugged' });
    expect(lastRequiredAct(attempt(plug, card))).toMatchObject({ kind: 'means_shown' });
    expect(lastRequiredAct(attempt(card, [80, 'plugged']))).toMatchObject({ kind: 'plugged' });
    expect(lastRequiredAct(attempt(plug))).toBe('the means was not recorded');
    expect(lastRequiredAct(attempt(plug, yes))).toBe('showing the means was not recorded');
  });
  it('only showings before the acceptance are required acts', () => expect(said(plug, card, yes, [95, 'means_shown', CARD], power).handshake).toBe(25));
  it('power seen late is a bound both ways', () => {
    const late = times(plug, card, [100, 'power_seen', { ...KW, late: true }], gone(700));
    expect(late.handshake).toMatchObject({ s: 25, bound: 'at_most' });
    expect(late.charging).toMatchObject({ s: 600, bound: 'at_least' });
    expect(times(plug, card, power, gone(700))).toMatchObject({ handshake: { bound: 'exact' }, charging: { bound: 'exact' } });
  });
});

describe('the means an attempt ran on', () => {
  it('the accepted one, else the last shown, else the last refused', () => {
    const kind = (...steps: Step[]) => meansOf(attempt(plug, ...steps))?.meansKind;
    expect(kind()).toBeUndefined();
    expect(kind(card, [80, 'means_shown', APP])).toBe('app');
    expect(kind(card, [80, 'means_shown', APP], [85, 'means_accepted', CARD])).toBe('contactless');
    const refused = (meansKind: string, place: number) => ({ meansKind, place }) as never;
    expect(meansOf({ shows: [], refusals: [refused('app', 1), refused('rfid', 2)] } as never)?.meansKind).toBe('rfid');
    expect(meansOf({ shows: [refused('card', 1)], refusals: [refused('rfid', 2)] } as never)?.meansKind).toBe('card');
  });
});

describe('how long it charged', () => {
  const end = (...steps: Step[]) => chargingEnd(attempt(plug, card, power, ...steps))?.kind;
  it('to power gone, else stop pressed, else the fault that ended it, else the act that followed', () => {
    expect(end([600, 'stop_asked', { by: 'button' }], gone(620))).toBe('power_gone');
    expect(end([600, 'stop_asked', { by: 'button' }])).toBe('stop_asked');
    expect(end([600, 'fault', { code: 'stopped_by_itself', side: 'network' }])).toBe('fault');
    expect(end([600, 'unplugged'])).toBeUndefined();
    expect(end()).toBeUndefined();
    expect(chargingEnd(attempt(plug, card))).toBeUndefined();
  });
  it('says why there is none', () => {
    expect(said(plug, card, power).charging).toBe('still charging, or the end was not recorded');
    expect(said(plug, card, power, [600, 'unplugged']).charging).toBe('the end of the charge was not recorded');
  });
  it('without its pauses, whose ± come on top; a pause that never ended is the end', () => {
    const paused = times(plug, card, power, [200, 'change', { what: 'paused' }, { precision: 'min' }], [260, 'change', { what: 'resumed' }], gone(700));
    expect(paused.charging).toMatchObject({ s: 540, bound: 'exact' });
    const plain = times(plug, card, power, gone(700)).charging;
    expect(paused.charging.known && plain.known && paused.charging.pm_s > plain.pm_s).toBe(true);
    expect(times(plug, card, power, [200, 'change', { what: 'paused' }], [700, 'unplugged']).charging).toMatchObject({ s: 100 });
  });
  it('an end seen later than it was is at most, with the least beside it', () => {
    const bound = { why: 'unknown', notBefore: T0 + 500_000 };
    const steps: Step[] = [
      plug,
      card,
      power,
      [200, 'change', { what: 'paused' }],
      [260, 'change', { what: 'resumed' }],
      [600, 'stop_asked', { by: 'app' }],
      [700, 'power_gone', bound],
    ];
    expect(times(...steps).charging).toMatchObject({ s: 540, bound: 'at_most', low_s: 340 });
    expect(times(plug, card, power, gone(700)).charging).not.toHaveProperty('low_s');
  });
  it('of which only the day is known is unknown with that reason', () => {
    const day = { precision: 'day' as const };
    expect(said(plug, card, [100, 'power_seen', KW, day], gone(700)).charging).toBe('only the day is known');
    expect(said(plug, card, power, [200, 'change', { what: 'paused' }, day], [260, 'change', { what: 'resumed' }], gone(700)).charging).toBe(
      'only the day is known',
    );
  });
  it('pauses that are longer than the charge leave nothing to say; as long as it leave 0', () => {
    const pauses = (from: number, to: number) => [
      { from: { ...attempt(plug, power).proof, t: T0 + from * 1000 }, to: { ...attempt(plug, power).proof, t: T0 + to * 1000 } },
    ];
    const a = attempt(plug, card, power, gone(700));
    const again = (p: unknown) => attemptTimes({ ...a, pauses: p } as never).charging;
    expect(again(pauses(100, 701))).toEqual({ known: false, why: 'the pauses are longer than the charge' });
    expect(again(pauses(100, 700))).toMatchObject({ known: true, s: 0 });
  });
  it('while it runs', () => {
    const now = T0 + 400_000;
    expect(chargingSoFar(attempt(plug, card), now)).toBe(0);
    expect(chargingSoFar(attempt(plug, card, power), now)).toBe(300);
    expect(chargingSoFar(attempt(plug, card, power, [200, 'change', { what: 'paused' }]), now)).toBe(100);
    expect(chargingSoFar(attempt(plug, card, power, [200, 'change', { what: 'paused' }], [260, 'change', { what: 'resumed' }]), now)).toBe(240);
    expect(chargingSoFar(attempt(plug, card, power), T0)).toBe(0);
  });
});
