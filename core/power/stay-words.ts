import { lowerFirst } from '../units/letter-case';
import { printDistance, printKW, printLong } from '../units/print';
import { printTime } from '../units/zoned';
import { FULL_PCT, type NextStop, type StayAdvice, type StayAsked, UNSEEN_DAYS } from './stay-or-go';

/** Levels nearer than this are told as one. */
const LEVEL_SLACK = 0.05;
/** A level reckoned so far beyond the one read is told with it. */
const LONG_UNREAD_PCT = 15;

const minutes = (m: number): string => (m < 1 ? 'under a minute' : `about ${printLong(m * 60)}`);
/** A level that is needed, in whole per cents of a screen: upwards, but for a trace. */
export const wholePct = (x: number): string => `${Math.ceil(x - LEVEL_SLACK)} %`;

/** How far a limit of the stay is away, or past. @param in_min minutes from now */
export const deadlineWhen = (in_min: number): string => (in_min < 0 ? `${printLong(-in_min * 60)} ago` : `in ${printLong(in_min * 60)}`);

/** The one sentence above the board. @param now UTC ms */
export function stayHeadline(advice: StayAdvice, asked: Pick<StayAsked, 'leg' | 'next' | 'spread' | 'paused'>, now: number, zone: string): string {
  const { says, unread } = advice;
  const at = (min: number) => printTime(now + min * 60_000, zone);
  const before = (words: string, text: string) => (words ? words + lowerFirst(text) : text);
  const best = advice.atBest ? 'At best ' : '';
  const held = unread ? 'By now probably ' : '';
  // By a clock that stands nothing is at a time of day.
  const power = asked.paused ? 'Once power is back: ' : '';
  switch (says.is) {
    case 'stay':
      return before(power, before(best, `Stay until ${wholePct(says.pct)}, ${minutes(says.min)}.`));
    case 'go':
      if (says.why === 'leg') return before(held, `Enough for ${asked.leg?.name ?? 'the next leg'}${unread ? '' : ' now'}.`);
      if (advice.leave?.best?.how === 'direct') return before(held, `Enough to drive straight on${unread ? '' : ' now'}.`);
      return `${unread ? 'By now probably enough to go' : 'Go'} on to ${asked.next?.name ?? 'the next stop'}${says.unseen ? ', if it stands as noted' : unread ? '' : ' now'}.`;
    case 'either':
      return before(
        unread ? 'By now probably enough to go, and ' : '',
        says.minutes < 1 ? 'Staying or going is the same: do as you like.' : `It makes ${Math.round(says.minutes)} min at most: do as you like.`,
      );
    case 'cannot':
      return `Not on one battery: ${wholePct(says.shortByPct)} short.`;
    case 'about': {
      const { spread } = asked;
      if (asked.paused) return before(power, before(best, `${minutes(says.min)} to ${wholePct(says.pct)}.`));
      const between =
        spread && Math.round(says.min * spread.high) > Math.round(says.min * spread.low)
          ? `, between ${at(says.min * spread.low)} and ${at(says.min * spread.high)}`
          : '';
      return before(best, `About ${wholePct(says.pct)} at ${at(says.min)}${between}.`);
    }
    case 'slow':
      if (advice.pace === 0) return 'No power was shown last: it gets no fuller.';
      return advice.nowPct < FULL_PCT ? 'At this power it does not get there.' : unread ? 'By now probably as full as it gets.' : 'As full as it gets.';
  }
}

/** Why: what the sentence rests on, in a few more words. */
export function stayReason(
  advice: StayAdvice,
  asked: Pick<StayAsked, 'leg' | 'next' | 'reservePct' | 'kWhPer100km' | 'distance' | 'paused' | 'readAgo_min'>,
): string[] {
  const { says, leave, need, conflict } = advice;
  const out: string[] = [];
  const way = asked.next?.name ?? asked.leg?.name;
  if (asked.paused) out.push('Paused now.');
  if (advice.unread || advice.nowPct - advice.readPct >= LONG_UNREAD_PCT)
    out.push(`Read last: ${Math.floor(advice.readPct)} %, ${printLong(asked.readAgo_min * 60)} ago. Look at the screen.`);
  if (way && !asked.kWhPer100km) out.push(`How much this car uses is not noted: nothing can be told of ${asked.next ? `the way to ${way}` : way}.`);
  else if (asked.next?.stall === 'no_curve') out.push(`No curve of this car is on file: nothing can be told of charging at ${way}.`);
  else if (asked.next?.stall === 'no_stall') out.push(`No stall at ${way} that this car can use is on file: nothing can be told of charging there.`);
  const reserve = need?.reserveFrom === 'fallback' ? 'the way to the fallback' : `${asked.reservePct} % reserve`;
  if (asked.next && leave?.best) {
    const { next } = asked;
    const { best } = leave;
    const way = printDistance(next.toThere.km, asked.distance);
    if (best.how === 'direct') {
      if (says.is === 'stay') out.push(`That is what the whole way takes, with ${asked.reservePct} % reserve.`);
      out.push(`Driving straight on is quicker than stopping at ${next.name}.`);
    } else if (says.is === 'stay' && best.leavePct <= leave.neededThere + LEVEL_SLACK)
      out.push(`That is what ${way} to ${next.name} take, with ${reserve}; staying on gains nothing.`);
    else if (says.is === 'stay')
      out.push(`From there ${next.name}, ${way} on, gives more on arrival than this stall gives here${leave.rule ? '' : ', its stop and detour counted'}.`);
    else if (says.is === 'go') out.push(`${next.name}, ${way} on, gives more than this stall from now on.`);
    if (says.is === 'either') out.push('Going at once and staying as long as most do come to the same in all.');
    const { habit80 } = leave;
    if (habit80?.feasible && habit80.costs_min >= 1) out.push(`Staying to 80 % would cost ${printLong(habit80.costs_min * 60)} more in all.`);
    if (best.how === 'via' && need?.arrivalPct) out.push(arrivalWords(need.arrivalPct));
    out.push(outlookWords(next));
  } else if (need && asked.leg) {
    out.push(`For ${asked.leg.name} ${Math.round(need.legPct)} % and ${reserve}.`);
    if (need.arrivalPct) out.push(arrivalWords(need.arrivalPct));
  }
  if (conflict) out.push(`${conflict.why} ${deadlineWhen(conflict.in_min)}${conflict.in_min < 0 ? '' : ', before that'}.`);
  if (advice.pace < 0.9 && advice.pace > 0 && advice.nowPct < FULL_PCT) out.push(`Lately ${Math.round(advice.pace * 100)} % of the power expected came.`);
  if (advice.atBest) out.push('No curve of this car is on file: reckoned with the power read last, which will fall.');
  return out;
}

function arrivalWords({ usual, worst, best }: { usual: number; worst: number; best: number }): string {
  if (usual <= 0) return 'Left now, it would not get there.';
  const [low, high] = [Math.max(0, Math.round(worst)), Math.round(best)];
  return `Left now, it would arrive with ${Math.round(usual)} %${high > low ? `, between ${low} and ${high}` : ''}.`;
}

function outlookWords({ name, outlook, seenDaysAgo }: NextStop): string {
  const seen = seenDaysAgo === null ? `${name} was never seen` : seenDaysAgo > UNSEEN_DAYS ? `${name} was not seen for ${seenDaysAgo} days` : null;
  const starts =
    outlook.n === 0
      ? 'no start there on record: its network’s figures'
      : `${Math.round(outlook.startShare * 100)} % of starts there succeed, by ${outlook.n} and its network’s`;
  return `${seen ? `${seen}; ` : ''}${starts}.`;
}

/** Levels about the best at which the meter says the same. */
const METER_PCT = 1;
/**
 * At which reading to leave for those who go by the meter: `52 kW`, and amps where volts are known. `null` where the meter would say
 * something else than the best level: it shows less already, the way needs more than that, or the curve recovers.
 */
export function leaveBelow({ leave, nowPct }: Pick<StayAdvice, 'leave' | 'nowPct'>): string | null {
  if (!leave?.best || !leave.rule) return null;
  const { kWThere, leaveBelowA, leavePct } = leave.rule;
  const [low, high] = leave.leaveOk;
  if (leavePct <= Math.max(nowPct, leave.neededThere) + LEVEL_SLACK || leavePct < low - METER_PCT || leavePct > high + METER_PCT) return null;
  return `${printKW(kWThere)}${leaveBelowA === null ? '' : ` or ${Math.round(leaveBelowA)} A`} on the screen`;
}
