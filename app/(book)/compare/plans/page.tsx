import type { Metadata } from 'next';
import Link from 'next/link';
import { olderWords } from '@/core/compare/older-visits';
import { planSentence } from '@/core/tariff/plan-months';
import { printMoney } from '@/core/units/money';
import { kWhFigure } from '@/core/units/print';
import { printMonth } from '@/core/units/zoned';
import { plansPage } from '@/server/compare/plans-page';
import { signedInHere } from '@/server/http/signed-in-here';
import { PriceLooks } from '@/ui/compare/compare-choices';
import { Section } from '@/ui/places/section';
import { PlanMonthsChart } from '@/ui/prices/plan-months-chart';

export const metadata: Metadata = { title: 'Plans' };

/** What each plan would have saved, month by month. */
export default async function PlansPage() {
  const who = await signedInHere();
  const { plans, beyond } = await plansPage(who);
  return (
    <div className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="mr-1 text-[22px]">Plans</h1>
        <a href="/compare" className="plate">
          Compare visits
        </a>
        <PriceLooks here="plans" />
      </div>
      {plans.length === 0 ? (
        <div className="max-w-md bg-card p-6">
          <h2 className="text-lg">No plan yet</h2>
          <p className="mt-2 text-sm text-ink-2">
            A plan noted in the garage, with a price for those who hold it, is set against the visits of the last twelve months.
          </p>
          <Link href="/garage/plan/new" className="plate mt-4">
            Add a plan
          </Link>
        </div>
      ) : (
        plans.map((p) => {
          const money = (amount: number) => printMoney(String(amount), p.currency);
          return (
            <Section key={p.id} head={`${p.name}, ${money(Number(p.monthlyFee))} a month`} beside="paid, or would have" className="mb-8">
              {p.otherCurrency ? (
                <p className="text-sm text-ink-2">
                  Its fee is noted in {p.currency}, its prices in {p.otherCurrency}: what it saved cannot be told of two currencies.
                </p>
              ) : p.priced ? (
                <>
                  <p className="mb-3 text-[16px]">{planSentence(p.months, p.from, money)}</p>
                  {p.months.some((m) => m.visits > 0) ? (
                    <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,480px)_minmax(0,1fr)]">
                      <PlanMonthsChart months={p.months} currency={p.currency} name={p.name} />
                      <div className="overflow-x-auto" role="region" aria-label={`${p.name} by month`} tabIndex={0}>
                        <table className="w-full border-t-2 border-ink bg-card text-[13.5px]">
                          <thead>
                            <tr className="border-b border-ink text-[12px] font-semibold text-ink-2">
                              {['Month', 'visits', 'kWh', 'as a guest', 'with the plan', 'saved'].map((h, i) => (
                                <th key={h} scope="col" className={`px-1.5 py-1.5 sm:px-2 font-semibold ${i === 0 ? 'text-left' : 'text-right'}`}>
                                  {h}
                                </th>
                              ))}
                            </tr>
                          </thead>
                          <tbody>
                            {p.months.map((m) => (
                              <tr key={m.month} className={`border-b border-rule-2 ${m.held ? 'font-bold' : ''}`}>
                                <th scope="row" className="px-2 py-1 text-left font-normal">
                                  <span className="whitespace-nowrap">{printMonth(m.month)}</span>
                                  {m.held ? ', held' : ''}
                                </th>
                                <td className="num whitespace-nowrap px-1.5 py-1 text-right sm:px-2">{m.visits}</td>
                                <td className="num whitespace-nowrap px-1.5 py-1 text-right sm:px-2">{kWhFigure(m.kWh)}</td>
                                <td className="num whitespace-nowrap px-1.5 py-1 text-right sm:px-2">{money(m.guest)}</td>
                                <td className="num whitespace-nowrap px-1.5 py-1 text-right sm:px-2">{money(m.plan)}</td>
                                <td className="num whitespace-nowrap px-1.5 py-1 text-right sm:px-2">{m.saved < 0 ? `−${money(-m.saved)}` : money(m.saved)}</td>
                              </tr>
                            ))}
                          </tbody>
                        </table>
                      </div>
                    </div>
                  ) : null}
                </>
              ) : (
                <p className="text-sm text-ink-2">No price is on file for those who hold it. Add it at one of its sites, under Prices, for whom: this plan.</p>
              )}
            </Section>
          );
        })
      )}
      <p className="max-w-[820px] text-[13px] text-ink-2">
        Each visit by the prices of its day, as a guest and with the plan; a month with the plan has its fee in it, whether there was a visit or not.
        {beyond > 0 ? ` ${olderWords(beyond)} Months that have such visits are left out.` : ''}
      </p>
    </div>
  );
}
