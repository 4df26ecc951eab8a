import { DIMENSIONS } from '../records/ocpi-tariff';
import { holdsBy } from './clock-window';
import type { CompiledTariff, Element } from './compiled-tariff';
import { WEEK, weekdayName } from './price-week';

/** Something about a tariff that may be meant and may be a slip: shown as a question, never refused. */
export type PriceQuestion = { about: 'gap' | 'overlap'; text: string };

const time = (minute: number): string => `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
const holdsAlways = (e: Element): boolean => !e.never && [e.kwh, e.duration, e.power, e.current].every(([least, most]) => least === null && most === null);

/** Times of the week in words, `Mon 00:00 to 06:00`; at most three, and how many more. */
function timesText(found: { weekday: number; from: number; to: number }[]): string {
  const merged: { weekday: number; from: number; to: number }[] = [];
  for (const f of found) {
    const last = merged.at(-1);
    if (last && last.weekday === f.weekday && last.to === f.from) last.to = f.to;
    else merged.push({ ...f });
  }
  const every = merged.length === 7 && merged.every((m) => m.from === merged[0]?.from && m.to === merged[0]?.to);
  const words = every
    ? [merged[0]?.from === 0 && merged[0]?.to === 1440 ? 'at all times' : `every day ${time(merged[0]?.from ?? 0)} to ${time(merged[0]?.to ?? 0)}`]
    : merged.slice(0, 3).map((m) => `${weekdayName(m.weekday)} ${time(m.from)} to ${time(m.to)}`);
  return merged.length > 3 && !every ? `${words.join(', ')} and ${merged.length - 3} more` : words.join(', ');
}

/**
 * Gaps in which neither energy nor time charging has a price, and elements that can never come up because one before them always holds.
 * @param day whose dates hold, ISO
 */
export function priceQuestions(t: CompiledTariff, day: string): PriceQuestion[] {
  const cuts = [...new Set([0, ...t.minutes])].sort((a, b) => a - b);
  const pieces = WEEK.flatMap((weekday) => cuts.map((from, i) => ({ weekday, from, to: cuts[i + 1] ?? 1440 })));
  const at = (p: (typeof pieces)[number]) => t.elements.map((e) => !e.never && holdsBy(e.clock, { from: 0, day, weekday: p.weekday, minute: p.from }));
  const questions: PriceQuestion[] = [];
  const priced = t.extra.power_time !== undefined;
  const gaps = priced ? [] : pieces.filter((p) => !at(p).some((holds, i) => holds && (t.elements[i]?.components.ENERGY || t.elements[i]?.components.TIME)));
  if (gaps.length > 0) questions.push({ about: 'gap', text: `Nothing is charged for charging ${timesText(gaps)}. Is it free then?` });
  for (const type of DIMENSIONS)
    for (const [n, e] of t.elements.entries()) {
      if (!e.components[type]) continue;
      const own = pieces.filter((p) => at(p)[n]);
      // An earlier one that holds at all of its times and asks no more than the clock leaves it none.
      const hidden =
        own.length > 0 &&
        own.every((p) => at(p).some((holds, i) => i < n && holds && t.elements[i]?.components[type] && holdsAlways(t.elements[i] as Element)));
      if (hidden)
        questions.push({
          about: 'overlap',
          text: `Price ${n + 1} for ${WORDS[type]} never comes up: one before it holds at all of its times. Is the order right?`,
        });
    }
  return questions;
}
const WORDS = { ENERGY: 'energy', FLAT: 'the start', TIME: 'time charging', PARKING_TIME: 'time parked' } as const;
