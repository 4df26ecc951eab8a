import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { chargeOf } from './charge-of';
import { otherEvents } from './other-events';
import { seriesOf } from './series';

const change = (s: number, what: string, more = {}): Step => [s, 'change', { what, ...more }];
const fault = (s: number, code: string): Step => [s, 'fault', { code, side: 'network' }];
/** Power at second 60; one per cent of battery in ten seconds, from 20 to 40 %, and the stop at second 260. */
function noted(...steps: Step[]) {
  const look = (s: number): Step => [60 + s, 'reading', { screen: 'stall', socPct: 20 + s / 10 }];
  const all: Step[] = [
    IN,
    [20, 'plugged'],
    [30, 'means_shown', CARD],
    [60, 'power_seen', KW],
    look(0),
    look(100),
    look(200),
    [260, 'stop_asked', { by: 'button' }],
  ];
  const v = deriveVisit(VISIT, story(...[...all, ...steps].sort((a, b) => a[0] - b[0])), payloadProblem);
  const a = v.attempts[0] as never;
  return otherEvents(v, a, seriesOf(chargeOf(a, v) as never)).map((e) => [e.text, e.t_s, e.socPct]);
}

describe('what else was noted while it charged', () => {
  it('in the words of the record, where the clock and the battery were', () => {
    expect(noted(change(110, 'fans'), change(160, 'rain'))).toEqual([
      ['Fans', 50, 25],
      ['Rain', 100, 30],
    ]);
    expect(noted(change(110, 'other', { text: 'A lorry blocks the bay' }))).toEqual([['A lorry blocks the bay', 50, 25]]);
    expect(noted(fault(160, 'hot_connector'))).toEqual([['Hot cable or connector', 100, 30]]);
  });
  it('a pause at its two moments', () =>
    expect(noted(change(110, 'paused'), change(140, 'resumed')).map(([text, t_s]) => [text, t_s])).toEqual([
      ['Paused', 50],
      ['Resumed', 80],
    ]));
  it('nothing that bears on the power by itself, and nothing from before or after', () => {
    for (const what of ['neighbour_in', 'neighbour_out', 'climate_on', 'climate_off', 'derate', 'cold']) expect(noted(change(110, what))).toEqual([]);
    expect(noted(change(40, 'rain'), change(300, 'rain'), fault(10, 'reader_dead'))).toEqual([]);
    const dead = deriveVisit(VISIT, story(IN, [20, 'plugged'], [30, 'means_shown', CARD], change(40, 'rain')), payloadProblem);
    expect(otherEvents(dead, dead.attempts[0] as never, seriesOf({ readings: [] }))).toEqual([]);
  });
});
