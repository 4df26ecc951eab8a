'use client';
import * as Popover from '@radix-ui/react-popover';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type CompareAsk, writeCompareAsk } from '@/core/compare/compare-address';
import { END_MARKS } from '@/core/compare/ledger-filter';
import { LOOK_NAMES, LOOKS } from '@/core/compare/measures';
import { SIDES, type Side } from '@/core/faults/fault-list';
import { GROUPING_NAMES, GROUPINGS, type Grouping } from '@/core/figures/groupings';
import { POWER_TIMES, type PowerTime } from '@/core/figures/populations';
import { upperFirst } from '@/core/units/letter-case';
import { TIME_RULES } from '@/core/visit/attempt-times';
import type { EndMark } from '@/core/visit/attempts/attempt';
import { Floating } from '../forms/floating';
import { FormField } from '../forms/form-field';
import { OneOf } from '../forms/one-of';

const SELECT = 'min-h-[36px] max-w-[210px] rounded-[5px] border border-lane bg-card px-2 text-[13px] font-semibold text-ink';
/** One press away; the rest is in the list beside. */
const AT_HAND: readonly Grouping[] = ['network', 'site', 'model', 'means'];
const segment = (chosen: boolean) =>
  `min-h-[36px] border-r border-lane px-3 text-[13px] font-semibold last:border-r-0 ${chosen ? '!bg-asphalt !text-line shadow-[inset_0_-3px_0_var(--paint)]' : 'bg-card text-ink'}`;
const SEGMENTS = 'flex flex-wrap overflow-hidden rounded-[5px] border border-lane';

/** What is compared: by what, and by what else. What is chosen lives in the address. */
export function GroupedBy({ ask }: { ask: CompareAsk }) {
  const router = useRouter();
  const [first = 'network', second] = ask.by;
  const go = (by: (Grouping | undefined)[]) => router.push(`/compare${writeCompareAsk({ ...ask, by: by.filter((b): b is Grouping => b !== undefined) })}`);
  return (
    <>
      <OneOf
        label="Compare by"
        headed={false}
        value={AT_HAND.includes(first) ? first : null}
        choices={AT_HAND.map((by) => [by, upperFirst(GROUPINGS[by].many)] as const)}
        look={segment}
        row={SEGMENTS}
        onChoose={(by: Grouping) => go([by, second === by ? undefined : second])}
      />
      <select
        aria-label="Compare by something else"
        className={SELECT}
        value={AT_HAND.includes(first) ? '' : first}
        onChange={(e) => e.target.value && go([e.target.value as Grouping, second === e.target.value ? undefined : second])}
      >
        <option value="">by something else</option>
        {GROUPING_NAMES.filter((by) => !AT_HAND.includes(by)).map((by) => (
          <option key={by} value={by}>
            by {GROUPINGS[by].one}
          </option>
        ))}
      </select>
      <select aria-label="And by" className={SELECT} value={second ?? ''} onChange={(e) => go([first, (e.target.value || undefined) as Grouping | undefined])}>
        <option value="">and by nothing else</option>
        {GROUPING_NAMES.filter((by) => by !== first).map((by) => (
          <option key={by} value={by}>
            and by {GROUPINGS[by].one}
          </option>
        ))}
      </select>
    </>
  );
}

/** What is looked at, by which definition and end mark, with whose faults, from how many visits on. */
export function LookedAt({ ask }: { ask: CompareAsk }) {
  const router = useRouter();
  const go = (change: Partial<CompareAsk>) => router.push(`/compare${writeCompareAsk({ ...ask, ...change })}`);
  return (
    <>
      <OneOf
        label="Look at"
        headed={false}
        value={ask.look}
        choices={LOOK_NAMES.map((look) => [look, LOOKS[look].label] as const)}
        look={segment}
        row={SEGMENTS}
        onChoose={(look) => go({ look, sort: LOOKS[look].measures[0] })}
      />
      <PriceLooks here={null} />
      <CountedHow ask={ask} go={go} />
    </>
  );
}

/** The looks that are pages of their own: what power came, and what things cost, by prices and no visits. */
export function PriceLooks({ here }: { here: 'power' | 'all-in' | 'same-stop' | 'plans' | null }) {
  const link = (is: boolean) => `inline-flex items-center ${segment(is)}`;
  return (
    <nav aria-label="Power and prices" className={`no-print ${SEGMENTS}`}>
      <Link prefetch={false} href="/compare/power" aria-current={here === 'power' ? 'page' : undefined} className={link(here === 'power')}>
        Power
      </Link>
      <Link prefetch={false} href="/compare/all-in" aria-current={here === 'all-in' ? 'page' : undefined} className={link(here === 'all-in')}>
        All in
      </Link>
      <Link prefetch={false} href="/compare/same-stop" aria-current={here === 'same-stop' ? 'page' : undefined} className={link(here === 'same-stop')}>
        The same stop
      </Link>
      <Link prefetch={false} href="/compare/plans" aria-current={here === 'plans' ? 'page' : undefined} className={link(here === 'plans')}>
        Plans
      </Link>
      <Link prefetch={false} href="/ledger/statement" className={link(false)}>
        Statement
      </Link>
    </nav>
  );
}

/** By which definition and end mark, with whose faults, from how many visits on, before and after what. */
function CountedHow({ ask, go }: { ask: CompareAsk; go: (change: Partial<CompareAsk>) => void }) {
  const { filter } = ask;
  const field = 'field !min-h-[44px] w-full';
  const odd = [filter.without, ask.least > 0, ask.change, filter.time !== 'handshake', filter.mark !== 'kW'].filter(Boolean).length;
  return (
    <Popover.Root>
      <Popover.Trigger className="min-h-[36px] rounded-[5px] border border-lane bg-card px-2.5 text-[13px] font-semibold text-ink">
        {odd > 0 ? `Counted how: ${odd}` : 'Counted how'}
      </Popover.Trigger>
      <Floating label="Counted how" className="w-[min(340px,calc(100vw-24px))] p-4">
        <FormField id="counted-time" label="Timed by">
          <select id="counted-time" className={field} value={filter.time} onChange={(e) => go({ filter: { ...filter, time: e.target.value as PowerTime } })}>
            {POWER_TIMES.map((t) => (
              <option key={t} value={t}>
                {TIME_RULES[t].label}
              </option>
            ))}
          </select>
        </FormField>
        <FormField id="counted-mark" label="End mark">
          <select id="counted-mark" className={field} value={filter.mark} onChange={(e) => go({ filter: { ...filter, mark: e.target.value as EndMark } })}>
            {END_MARKS.map((m) => (
              <option key={m} value={m}>
                to first {m}
              </option>
            ))}
          </select>
        </FormField>
        <FormField id="counted-without" label="Faults counted">
          <select
            id="counted-without"
            className={field}
            value={filter.without ?? ''}
            onChange={(e) => {
              const { without: _, ...kept } = filter;
              go({ filter: e.target.value ? { ...kept, without: e.target.value as Side } : kept });
            }}
          >
            <option value="">Of every side</option>
            {SIDES.map((s) => (
              <option key={s} value={s}>
                Also without the {s}’s
              </option>
            ))}
          </select>
        </FormField>
        <FormField id="counted-least" label="Least count">
          <select id="counted-least" className={field} value={ask.least} onChange={(e) => go({ least: Number(e.target.value) })}>
            {[...new Set([0, 3, 5, 10, 20, ask.least])]
              .sort((a, b) => a - b)
              .map((n) => (
                <option key={n} value={n}>
                  {n === 0 ? 'However few visits' : `${n} visits or more`}
                </option>
              ))}
          </select>
        </FormField>
        <FormField id="counted-change" label="Something changed on" hint="Before and from then on are shown apart">
          <input
            id="counted-change"
            type="date"
            className={field}
            defaultValue={ask.change ?? ''}
            key={ask.change}
            onChange={(e) => {
              // A year that is still being typed is none yet.
              if (e.target.value === '' || e.target.value >= '1990') go({ change: e.target.value || null });
            }}
          />
        </FormField>
      </Floating>
    </Popover.Root>
  );
}
