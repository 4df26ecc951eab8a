import { deriveVisit } from './derive';
import { APP, CARD, IN, KW, STALL_A, type Step, story, T0, VISIT } from './fixtures/story';
import { helplineCard } from './helpline-card';
import { payloadProblem } from './payloads';
import { orderInWords, orderOf } from './start-order';
import { stayClocks } from './stay-clocks';

const visit = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem);
const chosen: Step = [5, 'stall_chosen', { stallId: STALL_A }];
const charged: Step[] = [IN, chosen, [60, 'plugged'], [75, 'means_shown', CARD], [100, 'power_seen', KW]];

describe('the order that works', () => {
  it.each([
    ['card, then plug', 'pay_first'],
    ['app first, then the plug', 'pay_first'],
    ['plug in, then tap the card', 'plug_first'],
    ['start, then card', 'plug_first'],
    ['tag at the kiosk', 'pay_first'],
    ['ask at the till', null],
    [null, null],
  ])('“%s” names %s', (note, order) => expect(orderInWords(note)).toBe(order));
  it('is learnt from an attempt that got power', () => {
    const order = (...steps: Step[]) => orderOf(visit(...steps).attempts.at(-1) as never);
    expect(order(...charged)).toBe('plug_first');
    expect(order(IN, chosen, [60, 'means_shown', APP], [75, 'plugged'], [100, 'power_seen', KW])).toBe('pay_first');
    expect(order(IN, chosen, [60, 'plugged'], [75, 'means_shown', CARD])).toBeNull();
  });
});

describe('what counts down', () => {
  const rules = { maxStay_min: 60, overstayAfter_min: 70, idleGrace_min: 5 };
  const clocks = (...steps: Step[]) => stayClocks(visit(...steps), rules).map((c) => [c.kind, (c.until - T0) / 1000]);
  // One hour at most in some car parks; overstay once connected longer than 70 min; five minutes of idle grace: common practice, no source.
  it('the max stay from pulling in, the overstay from plugging in', () =>
    expect(clocks(...charged)).toEqual([
      ['max_stay', 3600],
      ['overstay', 60 + 4200],
    ]));
  it('the idle grace from the end of the charge until unplugged', () => {
    expect(clocks(...charged, [1000, 'stop_asked', { by: 'button' }])[0]).toEqual(['idle_grace', 1300]);
    expect(clocks(...charged, [1000, 'stop_asked', { by: 'button' }], [1100, 'unplugged'])).toEqual([['max_stay', 3600]]);
  });
  it('nothing once pulled out, nor without rules', () => {
    expect(clocks(...charged, [900, 'unplugged'], [950, 'pulled_out', { reason: 'enough' }])).toEqual([]);
    expect(stayClocks(visit(...charged), { maxStay_min: null, overstayAfter_min: null, idleGrace_min: null })).toEqual([]);
  });
});

describe('the card for the helpline', () => {
  const where = {
    site: { name: 'Vrba Crossing', entrance: 'past the tyre shop', helpline: '080 555 0142' },
    network: { name: 'Saltmarsh Rapid', helpline: '+386 1 555 0131' },
    stall: { name: '2', otherName: 'SR-2', evseUids: ['E-0002'], connector: '150 kW CCS2' },
  };
  it('says where one stands, what one did and when, and what the screen said', () => {
    const card = helplineCard(
      visit(IN, chosen, [60, 'plugged'], [75, 'means_shown', CARD], [120, 'fault', { code: 'start_error', side: 'network', text: 'E-17' }]),
      where,
    );
    expect(card.number).toBe('080 555 0142');
    expect(Object.fromEntries(card.lines)).toMatchObject({
      Site: 'Vrba Crossing, past the tyre shop',
      Stall: '2, “SR-2” in the app',
      'EVSE id': 'E-0002',
      'Plugged in': '13:53:00',
      'Paid with': 'Contactless card, 13:53:15',
      'Power seen': 'none',
      'Last on the screen': 'Start error: E-17, 13:54:00',
      Attempts: '1',
    });
  });
  it('says each in its place, and what was said last', () => {
    const card = (steps: Step[], at: Parameters<typeof helplineCard>[1] = where) => helplineCard(visit(...steps), at);
    const lines = (...steps: Step[]) => Object.fromEntries(card(steps).lines);
    expect(card([IN, [3, 'stall_named', { text: 'SR-2' }], [4, 'note', { text: 'no name' }], ...charged.slice(1)]).lines).toEqual([
      ['Site', 'Vrba Crossing, past the tyre shop'],
      ['Network', 'Saltmarsh Rapid'],
      ['Stall', '2, “SR-2” in the app'],
      ['EVSE id', 'E-0002'],
      ['Connector', '150 kW CCS2'],
      ['Called in the app', 'SR-2'],
      ['Plugged in', '13:53:00'],
      ['Paid with', 'Contactless card, 13:53:15'],
      ['Power seen', '13:53:40'],
      ['Attempts', '1'],
    ]);
    expect(lines(IN, chosen, [60, 'plugged'], [75, 'claimed', { by: 'screen' }])['Last on the screen']).toBe('said it was charging, 13:53:15');
    expect(lines(IN, chosen, [60, 'means_shown', CARD], [70, 'means_refused', CARD])['Last on the screen']).toBe('Refused, 13:53:10');
    expect(lines(IN, chosen, [60, 'means_shown', CARD], [70, 'means_refused', { ...CARD, fault: 'card_refused' }])['Last on the screen']).toBe(
      'Card refused, 13:53:10',
    );
    expect(lines(IN, chosen, [60, 'fault', { code: 'start_error', side: 'network' }])['Last on the screen']).toBe('Start error, 13:53:00');
    // A second attempt that waits does not hide that the first had power.
    expect(lines(...charged, [900, 'unplugged'], [960, 'plugged'])['Power seen']).toBe('13:53:40');
    const several = card([IN], { ...where, stall: { ...where.stall, otherName: null, evseUids: ['E-1', 'E-2'] } });
    expect(Object.fromEntries(several.lines)).toMatchObject({ Stall: '2', 'EVSE id': 'E-1, E-2' });
  });
  it('knows nobody to call where neither site nor network is known', () => {
    expect(helplineCard(visit(IN), { site: null, network: null, stall: null })).toEqual({ number: null, lines: [['Power seen', 'none']] });
    expect(helplineCard(visit(IN), { site: { name: 'X', entrance: null, helpline: null }, network: null, stall: null }).number).toBeNull();
    expect(helplineCard(visit(IN), { site: null, network: where.network, stall: null }).number).toBe('+386 1 555 0131');
    expect(helplineCard(visit(IN), { ...where, stall: { ...where.stall, evseUids: [], connector: '' } }).lines.map(([l]) => l)).not.toContain('EVSE id');
  });
  it('takes the network’s number when the post has none, and leaves out what is not known', () => {
    const card = helplineCard(visit(IN), { site: { name: 'X', entrance: null, helpline: null }, network: where.network, stall: null });
    expect(card.number).toBe('+386 1 555 0131');
    expect(card.lines.map(([l]) => l)).toEqual(['Site', 'Network', 'Power seen']);
  });
});
