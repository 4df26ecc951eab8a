import { answerSentence, limitText } from './answer-words';
import type { StallAnswer } from './compatible-stalls';

describe('a site for a car, in a sentence', () => {
  const answer = (stallId: string, use: StallAnswer['use'], reasons: [code: string, text: string][] = [], asSeen: string | null = null): StallAnswer =>
    ({ stallId, use, reasons: reasons.map(([code, text]) => ({ code, text })), asSeen }) as unknown as StallAnswer;
  const say = (answers: StallAnswer[], best: string[] = []) => answerSentence(answers, best, 'likely best', 'Heron 62', (id) => id.toUpperCase());
  it('which are best, or that none is', () => {
    expect(say([])).toBe('No stalls are noted here yet.');
    expect(say([answer('a', 'yes'), answer('b', 'no')], ['a'])).toBe('Outlined: likely best for the Heron 62.');
    expect(say([answer('a', 'yes')])).toBe('The Heron 62 can use it.');
    expect(say([answer('a', 'yes'), answer('b', 'yes')])).toBe('For the Heron 62 the stalls here do not differ.');
    expect(say([answer('a', 'perhaps' as never), answer('b', 'no')])).toBe('Nothing here is without doubt for the Heron 62.');
    expect(say([answer('a', 'no')])).toBe('The Heron 62 can use no stall here.');
  });
  it('what speaks against others, once for all of one reason, dated as last seen', () => {
    const derated: [string, string] = ['derated', 'derated to 50 kW'];
    const all = [
      answer('a', 'yes', [derated], '2026-07-01'),
      answer('b', 'yes', [derated, ['slow', 'slower']], '2026-07-03'),
      answer('c', 'yes', [derated]),
      answer('d', 'no', [['closed', 'closed']]),
    ];
    expect(say(all.slice(0, 2))).toMatch(/A and B: derated to 50 kW, as seen 3 Jul\.$/);
    expect(say(all)).toMatch(/A, B, C: derated to 50 kW, as seen .* D: closed\.$/);
    expect(say([answer('a', 'yes', [['failed_twice', 'failed twice running']])])).toBe('The Heron 62 can use it. A: failed twice running.');
  });
  it('what holds the most power back', () => {
    expect((['plate', 'derated', 'cabinet', 'car', 'amps', 'booster', 'onboard charger', 'phases'] as const).map(limitText)).toEqual([
      'the plate',
      'derating',
      'the cabinet',
      'the car',
      'its amps',
      'the car’s booster',
      'the onboard charger',
      'AC phases in common',
    ]);
  });
});
