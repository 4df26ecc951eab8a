import Link from 'next/link';
import type { StallAnswer } from '@/core/power/compatible-stalls';
import { byCabinet } from '@/core/records/cabinets';
import type { MileRecord } from '@/core/records/record-schema';
import { plateKW, plateText } from '@/core/records/stall-plate';
import { printKW } from '@/core/units/print';
import { printSeen } from '@/core/units/zoned';

type Stall = Pick<MileRecord<'stall'>, 'id' | 'fields'>;

/** The bays of a site as milestones standing on their cabinets. */
export function Bays({
  stalls,
  answers,
  best,
  bestWords,
  sentence,
  href,
}: {
  stalls: readonly Stall[];
  answers: readonly StallAnswer[];
  best: readonly string[];
  /** What the best may be called. */
  bestWords: string;
  sentence: string;
  /** Where a stone leads to. */
  href: (stallId: string) => string;
}) {
  const answerOf = new Map(answers.map((a) => [a.stallId, a]));
  return (
    <div className="flex flex-wrap items-start gap-x-4 gap-y-3 bg-asphalt px-3 sm:gap-x-6 sm:px-[18px] pt-4 text-line">
      {byCabinet(stalls).map((g) => (
        <div key={g.stalls[0]?.id}>
          <ul className={`flex flex-wrap gap-2 sm:gap-2.5 ${g.cabinet === null ? '' : 'border-b-[3px] border-lane'}`}>
            {g.stalls.map((s) => (
              <li key={s.id}>
                <Link
                  href={href(s.id)}
                  className={`bay ${look(s, answerOf.get(s.id), best)}`}
                  aria-label={spoken(s, answerOf.get(s.id), best.includes(s.id) ? bestWords : null)}
                >
                  <Inner stall={s} />
                </Link>
              </li>
            ))}
          </ul>
          <p className="min-h-[26px] pb-2 pt-1 text-center text-[12px] text-line-2">{g.text}</p>
        </div>
      ))}
      <p className="max-w-[260px] grow basis-[150px] self-center pb-3 text-[13px] leading-snug text-line-2">{sentence}</p>
    </div>
  );
}

function Inner({ stall }: { stall: Stall }) {
  const f = stall.fields;
  const kW = plateKW(f) ?? 0;
  const name = f.name.length > 6 ? `${f.name.slice(0, 6)}…` : f.name;
  const shut = f.state?.is === 'closed' || f.state?.is === 'not yet open';
  return (
    <>
      <span className={`num font-semibold leading-none ${name.length > 3 ? 'text-[17px]' : 'text-[26px]'}`}>{name}</span>
      {shut ? (
        <>
          <span className="text-[12px]">{f.state?.is}</span>
          <span className="num text-[11.5px]">{f.state ? `seen ${printSeen(f.state.seenOn)}` : ''}</span>
        </>
      ) : (
        <>
          <span className="max-w-full truncate text-[12px] font-bold">{f.outlets[0]?.connector}</span>
          <span className="num text-[12px]">{f.state?.is === 'derated' ? `${f.state.kW} of ${kW}` : printKW(kW)}</span>
        </>
      )}
    </>
  );
}

function look(s: Stall, a: StallAnswer | undefined, best: readonly string[]): string {
  if (s.fields.state?.is === 'closed' || s.fields.state?.is === 'not yet open') return 'bay-shut';
  return [best.includes(s.id) ? 'bay-best' : '', a?.use === 'doubtful' ? 'bay-doubtful' : '', a?.use === 'no' ? 'bay-no' : ''].join(' ');
}

function spoken(s: Stall, a: StallAnswer | undefined, words: string | null): string {
  const state = s.fields.state && s.fields.state.is !== 'working' ? `, ${s.fields.state.is}` : '';
  const use = words ? `, ${words}` : a?.use === 'no' ? ', cannot be used' : '';
  return `Stall ${s.fields.name}, ${plateText(s.fields)}${state}${use}`;
}
