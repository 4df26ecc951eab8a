import { printCount, printKW, printShare } from '../units/print';
import type { Pace } from './pace';
import type { SessionPower } from './session-power';
import { type HeldBack, type HeldBy, isCar } from './what-held-it-back';

/** From so much on, whole minutes do not tell a stall from its word. */
const KEPT = 0.95;
const pct = (x: number) => String(Math.round(x));
const minutes = (m: number) => (m < 1 ? 'under a minute' : printCount(Math.round(m), 'minute'));

/** What the expected power rests on at alternating current. */
export const AC_BASIS = 'Alternating current: the onboard charger and the line set it, the curve does not.';

/** What a session's power says about the stall, and what else had a part in it: no surer than the figures. */
export function powerSentences(session: SessionPower): string[] {
  const out = [wordSentence(session)];
  for (const h of session.held.filter((x) => !isCar(x.by) && x.by !== 'stall_plate' && x.by !== 'stall_amps')) out.push(heldSentence(h));
  const own = session.held.filter((h) => isCar(h.by));
  const car = own.at(-1);
  if (car && car.to === session.held.at(-1)?.to && session.held.length > 1) out.push(`Above ${pct(car.from)} % ${PARTS[car.by]}.`);
  return out;
}

function wordSentence({ pace, limits, whole }: SessionPower): string {
  if (!whole || whole.covered === 'none') return 'The battery was read fewer than twice: what the stall kept of its word cannot be told.';
  if (!limits) return 'Car or stall is not on file with what it takes or gives: the stall cannot be judged yet.';
  const session = pace?.session;
  const word = session && session.took_min !== null ? session : null;
  if (!word || word.keepsItsWord === null) return 'What the stall should have given cannot be told from what is on file.';
  if (word.excusedBy.length > 0)
    return `The adapter set the power for part of it: by plate and car alone the stall kept its word for ${printShare(word.keepsItsWord)} of the minutes it took, with the adapter for ${printShare(word.keepsItsWordExcused ?? word.keepsItsWord)}.`;
  if (word.keepsItsWord >= KEPT) return 'The stall kept its word.';
  return `The stall kept its word for ${printShare(word.keepsItsWord)} of the minutes it took.`;
}

const PARTS: Record<HeldBy, string> = {
  pair_share: 'the neighbour probably took half the cabinet',
  neighbour: 'a neighbour on the same cabinet probably had a part',
  derated: 'the stall was derated',
  derate_suspected: 'a derate is suspected',
  hot: 'a hot cable probably held it back',
  phases: 'fewer phases than on the plate probably held it back',
  ramp: 'it was slow to ramp up',
  stall_plate: 'the plate set the pace',
  stall_amps: 'the stall’s amps set the pace',
  cable_amps: 'the cable’s amps set the pace',
  adapter_amps: 'the adapter’s amps set the pace',
  ac_line: 'phases and amps of the outlet set the pace',
  volts: 'the stall’s volts are below the battery’s',
  cold: 'the cold battery probably held it back',
  climate: 'heating or cooling probably took part of the power',
  car_curve: 'the car itself set the pace',
  onboard: 'the onboard charger set the pace',
  booster: 'the car’s booster set the pace',
  not_known: 'less came than car and stall allow, and nothing noted explains it',
};

const heldSentence = (h: HeldBack): string =>
  `From ${pct(h.from)} to ${pct(h.to)} % ${PARTS[h.by]}${h.minutes === null ? '' : `: ${h.minutes < 1 ? '' : 'about '}${minutes(h.minutes)}`}.`;

/** `0.71`, and what it says: `car and plate: 21 min`. */
export function ratioText(ratio: number | null): string {
  return ratio === null ? 'not told' : ratio.toFixed(2);
}

/** What held a band back, in the fewest words: `car`, `pair, from 47`, `pair, then car`. */
export function bandHeld(held: readonly HeldBack[], from: number, to: number): string {
  const own = held.filter((h) => h.from < to - 0.5 && h.to > from + 0.5);
  const name = (h: HeldBack) => SHORT[h.by];
  const [first, second, ...more] = own.filter((h, i) => i === 0 || name(h) !== name(own[i - 1] as HeldBack));
  if (!first) return '';
  if (!second) return name(first);
  if (more.length > 0) return `${name(first)}, ${name(second)} …`;
  return SHORT[second.by] !== 'car' ? `${name(second)}, from ${pct(second.from)}` : `${name(first)}, then car`;
}
const SHORT: Record<HeldBy, string> = {
  car_curve: 'car',
  onboard: 'car',
  booster: 'booster',
  stall_plate: 'plate',
  derated: 'derated',
  pair_share: 'pair',
  stall_amps: 'stall’s amps',
  cable_amps: 'cable',
  adapter_amps: 'adapter',
  ac_line: 'amps',
  volts: 'volts',
  neighbour: 'pair',
  climate: 'climate',
  cold: 'cold',
  hot: 'hot cable',
  phases: 'phases',
  ramp: 'slow ramp',
  derate_suspected: 'derate?',
  not_known: 'not told',
};

/** Minutes that the car alone, and car with plate, would have taken. @param judged car and stall are on file with what they take and give */
export const paceFeet = (p: Pace | null, judged: boolean): { car: string; word: string } => {
  const told = p && p.took_min !== null ? p : null;
  return {
    car:
      judged && !told
        ? 'too little of the battery was read'
        : told?.car_min == null
          ? 'the car’s own limit is not on file'
          : `car alone: ${Math.round(told.car_min)} min`,
    word: told?.word_min == null ? 'cannot be judged yet' : `car and plate: ${Math.round(told.word_min)} min`,
  };
};
/** Peak as it stands under the average. */
export const peakText = (kW: number | null): string => (kW === null ? 'no power was read' : `peak ${printKW(kW).replace(' kW', '')}`);
