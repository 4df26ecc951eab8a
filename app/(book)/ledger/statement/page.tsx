import Link from 'next/link';
import { inOneWords } from '@/core/tariff/exchange';
import { periodBeside, periodOf, type StatementRow, type StatementSum, statementCsv, wordsOfUse } from '@/core/tariff/statement';
import {
  beyondWords,
  billWords,
  changeWords,
  closedWords,
  dayAndPlace,
  NOTHING_OPEN,
  OF_STATEMENTS,
  OPEN_KINDS,
  periodWords,
  statementWords,
} from '@/core/tariff/statement-words';
import { printMoney } from '@/core/units/money';
import { printCount, printKWh } from '@/core/units/print';
import { localDay, printSeen } from '@/core/units/zoned';
import { now } from '@/server/clock';
import { statementPage } from '@/server/compare/statement-page';
import { titled } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { KeepFigure } from '@/ui/charts/keep-figure';
import { CARDS, PhoneHead } from '@/ui/charts/phone-head';
import { Section } from '@/ui/places/section';
import { one, type Query } from '../../../query';
import { CloseMonth } from './close-month';

type Props = { searchParams: Promise<Query> };
/** The month or year asked for, else this month. */
const asked = async (searchParams: Promise<Query>, today: string) => periodOf(one(await searchParams, 'of')) ?? today.slice(0, 7);

export const generateMetadata = ({ searchParams }: Props) =>
  titled(
    'Statement',
    async (who) => periodWords(await asked(searchParams, localDay(now(), who.zone))),
    (period) => `Statement, ${period}`,
  );

/** What was paid in a month or a year: every bill, sums by currency, car, driver and use, and what is missing. Prints as it stands. */
export default async function StatementPage({ searchParams }: Props) {
  const who = await signedInHere();
  const today = localDay(now(), who.zone);
  const period = await asked(searchParams, today);
  const thisMonth = today.slice(0, 7);
  // What is still to come has no statement, and this month has a link of its own.
  const beside = [periodBeside(period, -1), periodBeside(period, 1)].flatMap((p) => (p !== null && p <= today && p !== thisMonth ? [p] : []));
  const { statement: s, beyond, inOne, closed, changes, canClose } = await statementPage(who, period);
  return (
    <div className="mx-auto w-full max-w-[1080px] px-4 py-4 sm:px-6">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="mr-1 text-[22px]">Statement, {periodWords(period)}</h1>
        <span className="grow" />
        <nav aria-label="Period" className="no-print flex flex-wrap gap-2">
          {beside.map((p) => (
            <Link key={p} prefetch={false} href={`/ledger/statement?of=${p}`} className="plate">
              {periodWords(p)}
            </Link>
          ))}
          <Link prefetch={false} href={`/ledger/statement?of=${thisMonth}`} className="plate">
            This month
          </Link>
          <Link prefetch={false} href={`/ledger/statement?of=${period.slice(0, 4)}`} className="plate">
            All of {period.slice(0, 4)}
          </Link>
          <Link prefetch={false} href="/ledger/open" className="plate">
            What is open
          </Link>
          <a href={`/api/v1/pdf/statement?of=${period}`} download className="plate">
            PDF<span className="sr-only"> of this statement, with its receipts</span>
          </a>
        </nav>
      </div>
      {s.rows.length === 0 ? (
        <p className="bg-card p-4 text-[15px]">{statementWords(s)}</p>
      ) : (
        <>
          <p className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2 text-[16px]">{`${statementWords(s)} ${beyondWords(beyond)}`.trim()}</p>
          {inOne ? <p className="mb-3 max-w-[820px] text-[14px]">{inOneWords(inOne)}</p> : null}
          {closed.length > 0 ? (
            <section aria-label="Closed books" className="mb-3 border-l-4 border-ink bg-card px-4 py-2 text-[14px]">
              <p>
                {closedWords(period, closed, who.zone)}. {changes.length === 0 ? 'Nothing changed since.' : 'It is told as it was closed. Changed since:'}
              </p>
              {changes.length > 0 ? (
                <ul className="mt-1 list-disc pl-5">
                  {changes.map((c) => (
                    <li key={c.visitId}>
                      {c.hidden ? (
                        dayAndPlace(c)
                      ) : (
                        <Link href={`/ledger/${c.visitId}`} prefetch={false} className="underline">
                          {dayAndPlace(c)}
                        </Link>
                      )}
                      : {changeWords(c)}
                    </li>
                  ))}
                </ul>
              ) : null}
            </section>
          ) : null}
          <KeepFigure name={`Statement ${period}`} csv={statementCsv(s)}>
            <Bills rows={s.rows} />
          </KeepFigure>
          <div className="mt-5 grid gap-x-8 gap-y-6 md:grid-cols-3">
            <Sums head="By car" sums={s.byCar} />
            <Sums head="By driver" sums={s.byDriver} />
            <Sums head="Business or private" sums={s.byUse} />
            <Sums head="By tax rate" sums={s.byTax} />
            {s.byKind.length > 0 ? <Sums head="Charging and parking" sums={s.byKind} /> : null}
          </div>
          <Section head="Open and missing" className="mt-6">
            {OPEN_KINDS.map(([of, what]) => (
              <Missing key={of} rows={s[of]} what={what} />
            ))}
            {OPEN_KINDS.every(([of]) => s[of].length === 0) ? <p className="text-sm text-ink-2">{NOTHING_OPEN}</p> : null}
          </Section>
          {canClose ? <CloseMonth month={canClose} words={periodWords(canClose)} /> : null}
          <p className="mt-4 text-[13px] text-ink-2">{OF_STATEMENTS}</p>
        </>
      )}
    </div>
  );
}

const HEADS = ['Day', 'Place', 'Paid', 'kWh', 'Tax', 'Bill', 'Car and driver', 'Use'] as const;
function Bills({ rows }: { rows: readonly StatementRow[] }) {
  return (
    <div className="overflow-x-auto" role="region" aria-label="Bills" tabIndex={0}>
      <table className={`border-t-2 border-ink bg-card text-[13.5px] sm:min-w-[680px] ${CARDS.table}`}>
        <thead className={CARDS.head}>
          <tr className="border-b border-ink text-left text-[12px] font-semibold text-ink-2">
            {HEADS.map((h, i) => (
              <th key={h} scope="col" className={`px-2 py-1.5 font-semibold ${i > 1 && i < 5 ? 'text-right' : ''}`}>
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className={CARDS.body}>
          {rows.map((r) => (
            <tr key={r.visitId} className={`border-b border-rule-2 align-top max-sm:grid-cols-3 ${CARDS.row}`}>
              <td className={`num px-2 py-1 ${CARDS.whole}`}>{printSeen(r.day)}</td>
              <th scope="row" className={`px-2 py-1 text-left font-normal wrap-anywhere ${CARDS.whole}`}>
                {r.hidden ? (
                  r.place
                ) : (
                  <Link href={`/ledger/${r.visitId}`} prefetch={false} className="inline-block min-h-6 underline decoration-rule underline-offset-4">
                    {r.place}
                  </Link>
                )}
              </th>
              {[
                r.bills.map((b) => printMoney(b.amount, b.currency)).join(' '),
                r.kWh === null ? '' : printKWh(r.kWh),
                r.bills.map((b) => (b.tax === null ? '' : printMoney(b.tax, b.currency))).join(' '),
              ].map((figure, i) => (
                <td key={HEADS[i + 2]} className={`num px-2 py-1 text-right ${CARDS.cell}`}>
                  {figure.trim() === '' ? null : <PhoneHead>{HEADS[i + 2]}</PhoneHead>}
                  {figure}
                </td>
              ))}
              <td className={`px-2 py-1 text-[12.5px] text-ink-2 ${CARDS.whole}`}>{billWords(r)}</td>
              <td className={`px-2 py-1 ${CARDS.whole}`}>
                {r.car}, {r.driver}
              </td>
              <td className={`px-2 py-1 ${CARDS.whole}`}>{r.as ? wordsOfUse(r.as) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Sums({ head, sums }: { head: string; sums: readonly StatementSum[] }) {
  return (
    <Section head={head}>
      <dl className="text-[14px]">
        {sums.map((x) => (
          <div key={`${x.of} ${x.currency}`} className="flex items-baseline justify-between gap-4 border-b border-rule-2 py-[6px]">
            <dt className="min-w-0">{x.of}</dt>
            <dd className="num shrink-0 text-right">
              {printMoney(x.paid, x.currency)}
              {x.taxed > 0 ? <span className="block font-sans text-[12px] text-ink-2">of that tax {printMoney(x.tax, x.currency)}</span> : null}
            </dd>
          </div>
        ))}
      </dl>
    </Section>
  );
}

function Missing({ rows, what }: { rows: readonly StatementRow[]; what: string }) {
  if (rows.length === 0) return null;
  return (
    <p className="mb-2 text-[14px]">
      <b>
        {printCount(rows.length, 'visit')} {what}:
      </b>{' '}
      {rows.map((r, i) => (
        <span key={r.visitId}>
          {i > 0 ? ', ' : ''}
          {r.hidden ? (
            dayAndPlace(r)
          ) : (
            <Link href={`/ledger/${r.visitId}`} prefetch={false} className="underline">
              {dayAndPlace(r)}
            </Link>
          )}
        </span>
      ))}
      .
    </p>
  );
}
