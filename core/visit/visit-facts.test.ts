import { deriveVisit } from './derive';
import { CARD, IN, KW, STALL_A, type Step, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';
import { visitFacts } from './visit-facts';

const facts = (...steps: Step[]) =>
  Object.fromEntries(visitFacts(deriveVisit(VISIT, story(...steps), payloadProblem), 'over').map((f) => [f.label, `${f.value} | ${f.foot}`]));
const START: Step[] = [IN, [10, 'stall_chosen', { stallId: STALL_A }], [20, 'plugged'], [30, 'means_shown', CARD]];

describe('the six figures of a visit', () => {
  it('each with what it is of', () => {
    expect(
      facts(
        ...START,
        [60, 'fault', { code: 'start_error', side: 'network' }],
        [80, 'plugged'],
        [90, 'means_shown', CARD],
        [120, 'power_seen', KW],
        [130, 'reading', { screen: 'stall', socPct: 20, kW: 100 }],
        [1920, 'reading', { screen: 'stall', socPct: 60, kW: 48, kWh: '25.0' }],
        [1920, 'stop_asked', { by: 'button' }],
        [1990, 'pulled_out', { reason: 'enough' }],
        [2000, 'bill', { sessions: [], amount: '12.50', currency: 'EUR', state: 'charged' }],
      ),
    ).toEqual({
      Attempts: '2 | 1 failed',
      Handshake: '30.0 s | attempt 2, to first kW',
      'Lost to faults': '1:00 | of 33:10 visit',
      Delivered: '25.0 kWh | 20 to 60 %',
      'Average power': '50 kW | peak 100, stall’s screen',
      Paid: '€12.50 | €0.500 per kWh with fees',
    });
  });
  it('or with why it is not known', () => {
    const none = facts(...START, [60, 'pulled_out', { reason: 'gave_up' }]);
    expect(none.Attempts).toBe('1 | 1 failed');
    expect(none.Handshake).toBe('not read | no power was seen');
    // Nothing was delivered where nobody charged: that is known.
    expect(none.Delivered).toBe('0.0 kWh | battery not read');
    expect(none.Paid).toMatch(/^not read \| ./);
    expect(facts(IN, [60, 'pulled_out', { reason: 'queue' }]).Attempts).toMatch(/^0 \| ./);
    const unread = facts(...START, [60, 'power_seen', KW], [90, 'pulled_out', { reason: 'enough' }]);
    expect(unread.Attempts).toBe('1 | none failed');
    expect(unread.Delivered).toMatch(/^not read \| ./);
  });
});
