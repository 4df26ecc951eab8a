'use client';
import * as Popover from '@radix-ui/react-popover';
import type { CompareSentence } from '@/core/compare/sentence';
import { Floating } from '../forms/floating';

/** What the visits show, in words that are no surer than they are; each opens how it was worked out. */
export function Sentences({ sentences }: { sentences: CompareSentence[] }) {
  return (
    <ul className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2">
      {sentences.map((s) => (
        <li key={s.text} className="flex flex-wrap items-baseline gap-x-3 py-0.5 text-[16px] leading-snug">
          <span className="min-w-[min(100%,320px)] flex-1">{s.text}</span>
          {s.working.length > 0 ? <Working lines={s.working} about={s.text} /> : null}
        </li>
      ))}
    </ul>
  );
}

/** Opens how something was worked out. */
export function Working({ lines, about }: { lines: CompareSentence['working']; about: string }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`How this was worked out: ${about}`}
        className="no-print min-h-[28px] shrink-0 text-[13px] font-semibold text-shake underline"
      >
        How this was worked out
      </Popover.Trigger>
      <Floating label="How this was worked out" align="end" className="w-[min(460px,calc(100vw-24px))] p-3 text-[13px]">
        <dl>
          {lines.map(([head, text]) => (
            <div key={head} className="border-b border-rule-2 py-1 last:border-0">
              <dt className="font-semibold">{head}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
        <p className="mt-2 text-ink-2">
          Evidence is a Bayes factor, Beta(½, ½) for each share; it may be looked at after every visit. The degree is the lowest over leaving out each site in
          turn, is that of today, and can go again.
        </p>
      </Floating>
    </Popover.Root>
  );
}
