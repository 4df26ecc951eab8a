import Link from 'next/link';
import { timesText } from '@/core/compare/called';
import { heldTo } from '@/core/compare/share-working';
import type { MileRecord } from '@/core/records/record-schema';
import { sideLabel } from '@/core/records/trial-schema';
import { stepsLeft } from '@/core/trials/trial-order';
import type { TrialResult } from '@/core/trials/trial-result';
import { type RoundRun, stepsDone } from '@/core/trials/trial-rounds';
import { trialCsv } from '@/core/trials/trial-share';
import { roundNote, roundTime, trialDays, trialMethod, trialVerdict, trialWhen } from '@/core/trials/trial-words';
import { printCount, printDuration } from '@/core/units/print';
import { printDate, printTime } from '@/core/units/zoned';
import { KeepFigure } from '../charts/keep-figure';
import { Rows, Section } from '../places/section';
import { ForDrivers } from '../road/role';
import { EndTrial } from './end-trial';
import { HowSure } from './how-sure';
import { RoundLanes } from './round-lanes';
import { VoidRound } from './void-round';

export type TrialSheetData = { trial: MileRecord<'trial'>; rounds: RoundRun[]; result: TrialResult; zone: string };
/** The page of a trial: what it shows, each round, how sure it became, how it was done. */
export function TrialSheet({ page: { trial, rounds, result, zone } }: { page: TrialSheetData }) {
  const plan = trial.fields;
  const labelOf = (side: string) => sideLabel(plan, side);
  const left = stepsLeft(plan, stepsDone(rounds));
  const [next] = left;
  const days = trialDays(rounds, zone);
  const open = plan.endedOn === null && next !== undefined;
  const csv = trialCsv({ id: trial.id, plan, rounds, result }, true);
  return (
    <article aria-labelledby="trial-head" className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div className="min-w-0">
          <p className="text-[12.5px] font-semibold text-ink-2">{trialWhen(plan, days)}</p>
          <h1 id="trial-head" className="mt-1 text-[24px]">
            {plan.name}: who gives power sooner?
          </h1>
        </div>
        <span className="grow" />
        <div className="no-print flex flex-wrap gap-2">
          <a className="plate" href={`/api/v1/trials/${trial.id}?places=no`} download="trial-without-places.json">
            Share without places
          </a>
          <a className="plate" href={`/api/v1/trials/${trial.id}`} download="trial.json">
            JSON
          </a>
          <a className="plate" href={`/api/v1/trials/${trial.id}?as=csv`} download="trial.csv">
            Raw times
          </a>
          <a className="plate" href={`/api/v1/pdf/trials/${trial.id}`} download>
            PDF<span className="sr-only"> of this trial</span>
          </a>
        </div>
      </div>
      <p className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2.5 text-[17px] leading-snug">
        {trialVerdict(plan, result, days)}
        {result.degree === 'clearly' && open ? ' It is decided: the rounds that are left need not be run.' : ''}
      </p>
      {open ? (
        <p className="mb-3 flex flex-wrap items-center gap-3 bg-card px-4 py-2.5 text-[15px]">
          <span className="grow">
            Next: round {next.round}, <b>{labelOf(next.side)}</b>. {printCount(left.length, 'step')} left.
          </span>
          <ForDrivers>
            <a href="/stall" className="plate plate-next no-print">
              Run it at the Stall
            </a>
            <EndTrial trial={trial} zone={zone} />
          </ForDrivers>
        </p>
      ) : null}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
        <div>
          <KeepFigure name={`${plan.name}, each round`} csv={csv} drawn>
            <RoundLanes plan={plan} rounds={rounds} labelOf={labelOf} />
          </KeepFigure>
        </div>
        <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-5">
          {result.pairs[0] && result.pairs[0].course.length > 0 ? <HowSure pair={result.pairs[0]} pairs={result.pairs.length} /> : null}
          <Section head="Method">
            <Rows rows={trialMethod(plan, result)} empty="" />
            {result.pairs.some((p) => p.later) ? <Pairs result={result} labelOf={labelOf} /> : null}
          </Section>
        </div>
      </div>
      <Section head="Every round" beside={printCount(rounds.length, 'run')} className="mt-6">
        <div className="overflow-x-auto" role="region" aria-label="Every round" tabIndex={0}>
          <table className="w-full text-left text-[14px] max-sm:block sm:min-w-[560px]">
            <thead className="text-[12px] text-ink-2 max-sm:sr-only">
              <tr>
                {['Round', 'Side', 'Time', 'Observers', 'When', ''].map((h) => (
                  <th key={h} scope="col" className="py-1 pr-4 font-semibold">
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody className="max-sm:block">
              {rounds.map((r) => (
                <tr
                  key={r.id}
                  className={`border-t border-rule-2 max-sm:flex max-sm:flex-wrap max-sm:items-baseline max-sm:py-1 ${r.voided !== null || r.repeated ? 'text-ink-2' : ''}`}
                >
                  <td className="num py-1 pr-4">
                    <span className="font-sans sm:hidden">Round </span>
                    {r.round}
                  </td>
                  <td className="py-1 pr-4 font-semibold">{labelOf(r.side)}</td>
                  <td className="num py-1 pr-4">{r.s === null ? <span className="font-sans">{roundTime(r)}</span> : roundTime(r)}</td>
                  <td className="num py-1 pr-4">
                    {r.observers}
                    <span className="font-sans sm:hidden"> {r.observers === 1 ? 'observer' : 'observers'}</span>
                  </td>
                  <td className="num py-1 pr-4">
                    <Link prefetch={false} href={`/ledger/${r.visitId}`} className="inline-block min-h-6 underline decoration-rule underline-offset-4">
                      {printDate(r.at, zone)} {printTime(r.at, zone)}
                    </Link>
                  </td>
                  <td className="py-1">
                    {roundNote(r)}
                    {r.voided === null ? (
                      <ForDrivers>
                        <VoidRound visitId={r.visitId} trialId={trial.id} run={r.id} what={`round ${r.round}, ${labelOf(r.side)}`} />
                      </ForDrivers>
                    ) : null}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {rounds.length === 0 ? <p className="py-2 text-sm text-ink-2">No round was run yet.</p> : null}
        </div>
      </Section>
    </article>
  );
}

/** What each two of the sides show, for those who want the numbers. */
function Pairs({ result, labelOf }: { result: TrialResult; labelOf: (side: string) => string }) {
  return (
    <details className="mt-2 text-[13px]">
      <summary className="min-h-[28px] cursor-pointer font-semibold text-shake">How this was worked out</summary>
      {result.pairs.map((p) => (
        <p key={`${p.quicker}${p.slower}`} className="py-1">
          {labelOf(p.quicker)} before {labelOf(p.slower)} in {p.won} of {p.decided}, {p.undecided} within their ±: evidence {timesText(p.logEvidence)} times as
          likely as by a fair coin; {heldTo(result.pairs.length)}.
          {p.later
            ? ` Later by ${printDuration(p.later.pseudomedian)}, ${Math.round(p.later.level * 100)} % ${printDuration(p.later.limits[0])} to ${printDuration(p.later.limits[1])}. Signed rank, were this the only look: p ${p.later.pExact.toPrecision(2)}; so many pairs cannot go below ${p.later.least.toPrecision(2)}.`
            : ''}
        </p>
      ))}
    </details>
  );
}
