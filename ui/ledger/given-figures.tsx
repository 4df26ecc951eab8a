import { printDuration } from '@/core/units/print';
import { TIME_RULES, type TimeName } from '@/core/visit/attempt-times';
import type { Visit } from '@/core/visit/derive';
import { timingText } from '@/core/visit/timing-text';

/** Stopwatch and remembered figures beside the derived ones; the derived one counts unless somebody chose the other. */
export function GivenFigures({ visit: v }: { visit: Visit }) {
  const session = v.attempts.find((a) => a.proof);
  return (
    <section aria-labelledby="given-head" className="mt-3">
      <h2 id="given-head" className="mb-1 text-[15px]">
        Given figures
      </h2>
      <ul className="text-[13px]">
        {v.given.map((g, i) => {
          const name = g.figure in TIME_RULES ? (g.figure as TimeName) : null;
          const derived = name && session ? session.times[name] : null;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: the order of the record does not change under the page
            <li key={i} className="border-b border-rule-2 py-1">
              <b>{name ? TIME_RULES[name].label : g.figure}</b> by stopwatch or memory{' '}
              <span className="num font-semibold">
                {printDuration(g.seconds)} ± {g.plusMinus_s ?? 2} s
              </span>
              {g.used
                ? ', chosen: it counts in place of the derived one.'
                : derived?.known
                  ? `, derived from the events ${timingText(derived)}: the derived one counts.`
                  : ', not derived from the events. Correct the figure to let it count.'}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
