import type { Pace } from './pace';
import { bandHeld, paceFeet, peakText, powerSentences, ratioText } from './power-words';
import type { SessionPower } from './session-power';
import { type HeldBack, type HeldBy, heldText } from './what-held-it-back';

const held = (from: number, to: number, by: HeldBy, minutes: number | null = 5): HeldBack => ({
  from,
  to,
  by,
  minutes,
  kW: null,
  text: heldText(by, null),
  evidence: '',
  sure: 'guess',
});
const covered = { fromPct: 20, toPct: 60, covered: 'full' as const, coveredFrom: 20, coveredTo: 60, minutes: 20, kWh: 24, mean_kW: 72, range_km: null };
const paced = (more: object = {}): Pace =>
  ({ band: covered, took_min: 20, car_min: 16, pace: 0.8, word_min: 18, keepsItsWord: 0.9, excusedBy: [], keepsItsWordExcused: null, ...more }) as Pace;
const session = (more: Partial<SessionPower> = {}, pace: Pace = paced()): SessionPower =>
  ({ pace: { session: pace, bands: [] }, limits: {}, whole: covered, held: [], ...more }) as unknown as SessionPower;

describe('what a session’s power says', () => {
  it.each([
    [session({ whole: null }), 'The battery was read fewer than twice: what the stall kept of its word cannot be told.'],
    [session({ whole: { fromPct: 20, toPct: 60, covered: 'none' } }), 'The battery was read fewer than twice: what the stall kept of its word cannot be told.'],
    [session({ limits: null }), 'Car or stall is not on file with what it takes or gives: the stall cannot be judged yet.'],
    [session({ pace: null }), 'What the stall should have given cannot be told from what is on file.'],
    [session({}, paced({ took_min: null })), 'What the stall should have given cannot be told from what is on file.'],
    [session({}, paced({ keepsItsWord: null })), 'What the stall should have given cannot be told from what is on file.'],
    [session({}, paced({ keepsItsWord: 0.95 })), 'The stall kept its word.'],
    [session({}, paced({ keepsItsWord: 0.9499 })), 'The stall kept its word for 95 % of the minutes it took.'],
    [
      session({}, paced({ keepsItsWord: 0.7, excusedBy: ['adapter_amps'], keepsItsWordExcused: 0.98 })),
      'The adapter set the power for part of it: by plate and car alone the stall kept its word for 70 % of the minutes it took, with the adapter for 98 %.',
    ],
    [
      session({}, paced({ keepsItsWord: 0.7, excusedBy: ['adapter_amps'] })),
      'The adapter set the power for part of it: by plate and car alone the stall kept its word for 70 % of the minutes it took, with the adapter for 70 %.',
    ],
  ])('%#: %s', (s, want) => expect(powerSentences(s)).toEqual([want]));
  it('what had a part in it beside the car and the plate, with its minutes', () => {
    const said = (...all: HeldBack[]) => powerSentences(session({ held: all })).slice(1);
    expect(said(held(20, 40.4, 'pair_share', 7.4), held(40.4, 60, 'car_curve'))).toEqual([
      'From 20 to 40 % the neighbour probably took half the cabinet: about 7 minutes.',
      'Above 40 % the car itself set the pace.',
    ]);
    expect(said(held(20, 60, 'derate_suspected', 0.6))).toEqual(['From 20 to 60 % a derate is suspected: under a minute.']);
    expect(said(held(20, 60, 'not_known', null))).toEqual(['From 20 to 60 % less came than car and stall allow, and nothing noted explains it.']);
    expect(said(held(20, 60, 'hot', 1.2))).toEqual(['From 20 to 60 % a hot cable probably held it back: about 1 minute.']);
    // The plate and the stall's amps are its word already; what the car does by itself from beginning to end needs no word.
    expect(said(held(20, 40, 'stall_plate'), held(40, 60, 'stall_amps'))).toEqual([]);
    expect(said(held(20, 60, 'car_curve'))).toEqual([]);
    expect(said(held(20, 40, 'car_curve'), held(40, 60, 'stall_plate'))).toEqual([]);
  });
  it('every reason has its words, the last of the car’s too', () => {
    const all: HeldBy[] = ['car_curve', 'onboard', 'booster', 'adapter_amps', 'cold', 'climate'];
    expect(all.map((by) => powerSentences(session({ held: [held(20, 40, 'stall_plate'), held(40, 60, by)] })).at(-1))).toEqual([
      'Above 40 % the car itself set the pace.',
      'Above 40 % the onboard charger set the pace.',
      'Above 40 % the car’s booster set the pace.',
      'Above 40 % the adapter’s amps set the pace.',
      'Above 40 % the cold battery probably held it back.',
      'Above 40 % heating or cooling probably took part of the power.',
    ]);
    const stall: HeldBy[] = ['derated', 'neighbour', 'cable_amps', 'ac_line', 'volts'];
    expect(stall.map((by) => powerSentences(session({ held: [held(20, 60, by, null)] })).at(-1))).toEqual([
      'From 20 to 60 % the stall was derated.',
      'From 20 to 60 % a neighbour on the same cabinet probably had a part.',
      'From 20 to 60 % the cable’s amps set the pace.',
      'From 20 to 60 % phases and amps of the outlet set the pace.',
      'From 20 to 60 % the stall’s volts are below the battery’s.',
    ]);
  });
});

describe('in the fewest words', () => {
  it('what held a band back', () => {
    const all = [held(10, 33, 'car_curve'), held(33, 47, 'stall_plate'), held(47, 60.3, 'pair_share'), held(60.3, 70, 'neighbour'), held(70, 80, 'onboard')];
    expect([10, 30, 40, 50, 60, 70].map((from) => bandHeld(all, from, from + 10))).toEqual(['car', 'plate, from 33', 'pair, from 47', 'pair', 'pair', 'car']);
    expect(bandHeld(all, 30, 60)).toBe('car, plate …');
    expect(bandHeld(all, 65, 80)).toBe('pair, then car');
    expect([bandHeld(all, 80, 90), bandHeld([], 10, 20)]).toEqual(['', '']);
    // Half a per cent is no part of a band.
    expect([bandHeld([held(20, 30.5, 'hot')], 30, 40), bandHeld([held(20, 30.6, 'hot')], 30, 40), bandHeld([held(39.5, 60, 'cold')], 30, 40)]).toEqual([
      '',
      'hot cable',
      '',
    ]);
  });
  it('the figures and what stands below them', () => {
    expect([ratioText(0.706), ratioText(1), ratioText(null)]).toEqual(['0.71', '1.00', 'not told']);
    expect(paceFeet(paced(), true)).toEqual({ car: 'car alone: 16 min', word: 'car and plate: 18 min' });
    const untold = { car: 'the car’s own limit is not on file', word: 'cannot be judged yet' };
    const unread = { ...untold, car: 'too little of the battery was read' };
    expect([paceFeet(null, false), paceFeet(paced({ car_min: null, word_min: null }), true)]).toEqual([untold, untold]);
    expect([paceFeet(null, true), paceFeet(paced({ took_min: null }), true)]).toEqual([unread, unread]);
    expect([peakText(121.4), peakText(null)]).toEqual(['peak 121', 'no power was read']);
  });
});
