import { printSeen } from '../units/zoned';
import type { StallAnswer } from './compatible-stalls';
import type { Limit } from './most-kw';

const LIMITS: Record<Limit, string> = {
  plate: 'the plate',
  derated: 'derating',
  cabinet: 'the cabinet',
  car: 'the car',
  amps: 'its amps',
  booster: 'the car’s booster',
  'onboard charger': 'the onboard charger',
  phases: 'AC phases in common',
};
/** What holds the most power back. */
export const limitText = (by: Limit): string => LIMITS[by];

/**
 * One sentence on a site for a car: which stalls are likely best, what speaks against others, dated as seen.
 * @param words what the best may be called @param nameOf the name on a stall's post
 */
export function answerSentence(
  answers: readonly StallAnswer[],
  best: readonly string[],
  words: string,
  carName: string,
  nameOf: (stallId: string) => string,
): string {
  if (answers.length === 0) return 'No stalls are noted here yet.';
  const list = (ids: readonly string[]) => ids.map(nameOf).join(ids.length === 2 ? ' and ' : ', ');
  const usable = answers.filter((a) => a.use !== 'no');
  const parts: string[] = [];
  if (best.length > 0) parts.push(`Outlined: ${words} for the ${carName}.`);
  else if (usable.some((a) => a.use === 'yes'))
    parts.push(answers.length === 1 ? `The ${carName} can use it.` : `For the ${carName} the stalls here do not differ.`);
  else if (usable.length > 0) parts.push(`Nothing here is without doubt for the ${carName}.`);
  else parts.push(`The ${carName} can use no stall here.`);
  const told = new Map<string, StallAnswer[]>();
  for (const a of answers)
    for (const r of a.reasons) if (r.code === 'derated' || r.code === 'failed_twice' || r.code === 'closed') told.set(r.text, [...(told.get(r.text) ?? []), a]);
  for (const [text, of] of told) {
    const seen = of.map((a) => a.asSeen).filter((d) => d !== null);
    const on = seen.length > 0 ? `, as seen ${printSeen([...seen].sort().at(-1) as string)}` : '';
    parts.push(`${list(of.map((a) => a.stallId))}: ${text}${on}.`);
  }
  return parts.join(' ');
}
