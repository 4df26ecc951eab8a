import Link from 'next/link';
import { notFound } from 'next/navigation';
import { beyondCurveWords } from '@/core/power/beyond-curve';
import { leftOutWords } from '@/core/power/left-out-words';
import { isDC } from '@/core/power/most-kw';
import { chartLine, chartOf } from '@/core/power/power-chart';
import { powerCsv } from '@/core/power/power-csv';
import { AC_BASIS } from '@/core/power/power-words';
import { lossOf, sessionChecks } from '@/core/power/session-checks';
import type { SessionPower } from '@/core/power/session-power';
import { deliveredWords, stretchWords } from '@/core/power/stretch-words';
import { plateKW } from '@/core/records/stall-plate';
import { toldApart } from '@/core/units/told-apart';
import { noLevel, typedLevel, wrongLevels } from '@/core/units/typed-level';
import { printDate, printLongDate, printTime } from '@/core/units/zoned';
import { carLogsOf } from '@/server/formats/import-car-log';
import { titled } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import type { VisitPower } from '@/server/power/power-page';
import { powerPage } from '@/server/power/power-page';
import { type OtherVisit, visitsToLayOver } from '@/server/power/visits-to-lay-over';
import { recordsOf } from '@/server/records/record-tables';
import { visitTitle } from '@/server/visits/visit-title';
import { LayOver } from '@/ui/power/lay-over';
import type { Along } from '@/ui/power/power-chart';
import { PageChoice, PowerSheet } from '@/ui/power/power-sheet';
import { StretchForm } from '@/ui/power/stretch-form';
import { ForDrivers } from '@/ui/road/role';
import { one, type Query } from '../../../../query';
import { CarLog } from './car-log';

export const generateMetadata = async ({ params }: { params: Promise<{ visitId: string }> }) => {
  const { visitId } = await params;
  return titled(
    'Power',
    (who) => visitTitle(who, visitId),
    (name) => `Power, ${name}`,
  );
};

/** The session of a visit that brought most, to be laid over another's. */
const longest = (v: VisitPower): SessionPower | undefined => [...v.sessions].sort((a, b) => (b.series.charging_s ?? 0) - (a.series.charging_s ?? 0))[0];
const dayOf = (v: VisitPower) => v.visit.pulledInAt ?? v.visit.lastEventAt;
const shortName = (v: VisitPower, s: SessionPower) =>
  [printDate(dayOf(v), v.visit.zone), v.stallName(s.stallId) && `stall ${v.stallName(s.stallId)}`].filter(Boolean).join(', ');

/** One visit's power: along the battery or the clock, others laid over it, what held it back. */
export default async function PowerPage({ params, searchParams }: { params: Promise<{ visitId: string }>; searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const { visitId } = await params;
  const query = await searchParams;
  const over = (one(query, 'over') ?? '').split(',').filter(Boolean);
  const found = await powerPage(who, visitId, over);
  if (!found) notFound();
  const { page } = found;
  const { visit, car } = page;
  const along: Along = one(query, 'along') === 'clock' ? 'clock' : 'battery';
  const drawn = [page, ...found.over].flatMap((v) => {
    const session = longest(v);
    return session ? [{ v, session }] : [];
  });
  const labels = toldApart(
    drawn,
    ({ v, session }) =>
      [shortName(v, session), v.siteName === page.siteName ? '' : v.siteName, v.car?.id === car?.id ? '' : (v.car?.fields.name ?? '')]
        .filter(Boolean)
        .join(', '),
    ({ v }) => printTime(dayOf(v), v.visit.zone),
  );
  const laid = drawn.flatMap(({ v, session }, i) => (v === page ? [] : [{ id: v.visit.id, line: chartLine(session.series, labels[i] as string) }]));
  const stretch = stretchAsked(query);
  // What the address says of each: whoever changes one keeps the others.
  const alongAs = (way: Along): Record<string, string> => (way === 'clock' ? { along: 'clock' } : {});
  const laidAs: Record<string, string> = laid.length > 0 ? { over: laid.map((l) => l.id).join(',') } : {};
  const stretchAs: Record<string, string> = stretch.asked ? { from: stretch.from, to: stretch.to } : {};
  const turned = new URLSearchParams({ ...alongAs(along === 'clock' ? 'battery' : 'clock'), ...laidAs, ...stretchAs });
  const others = await visitsToLayOver(who, visitId);
  const carNames = new Map(others.length > 0 ? (await recordsOf(who.householdId, 'car')).map((c) => [c.id, c.fields.name]) : []);
  const otherNames = toldApart(
    others,
    ({ at, zone, site, carId }: OtherVisit) =>
      [printLongDate(at, zone), site, carId === (car?.id ?? null) ? '' : (carNames.get(carId ?? '') ?? '')].filter(Boolean).join(', '),
    ({ at, zone }) => printTime(at, zone),
  );
  return (
    <div className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <p className="text-[12.5px] font-semibold text-ink-2">
        {[printLongDate(dayOf(page), visit.zone), page.siteName, car?.fields.name].filter(Boolean).join(', ')}{' '}
        <Link href={`/ledger/${visitId}`} className="ml-2 text-shake underline">
          The visit
        </Link>
      </p>
      <div className="mb-4 mt-1 flex flex-wrap items-center gap-2">
        <h1 className="mr-auto text-[24px]">Power along the {along}</h1>
        <PageChoice href={`/ledger/${visitId}/power${turned.size > 0 ? '?' : ''}${turned}`}>Along the {along === 'clock' ? 'battery' : 'clock'}</PageChoice>
        <LayOver
          others={[
            ...laid.filter((l) => others.every((o) => o.id !== l.id)).map((l) => ({ id: l.id, name: l.line.label, chosen: true })),
            ...others.map((o, i) => ({ id: o.id, name: otherNames[i] as string, chosen: laid.some((l) => l.id === o.id) })),
          ]}
          base={`/ledger/${visitId}/power`}
          kept={{ ...alongAs(along), ...stretchAs }}
        />
      </div>
      {page.sessions.length === 0 ? (
        <p className="bg-card px-4 py-3 text-sm text-ink-2">
          No power was seen on this visit, or of the charge only the day is known: there is nothing to draw.
        </p>
      ) : (
        page.sessions.map((s) => {
          const a = visit.attempts.find((x) => x.n === s.n);
          const [stall, outlet] = [page.stall(s.stallId), page.outletOf(s.n)];
          const chart = chartOf(
            s,
            page.sessions.length > 1 ? `Session ${s.n}` : (labels[0] as string),
            laid.map((l) => l.line),
          );
          const whole = s.whole && s.whole.covered !== 'none' ? s.whole : null;
          return (
            <div key={s.n}>
              {page.sessions.length > 1 ? (
                <h2 className="mb-2 text-[17px]">
                  Session {s.n}
                  {page.stallName(s.stallId) ? `, stall ${page.stallName(s.stallId)}` : ''}
                </h2>
              ) : null}
              <PowerSheet
                session={s}
                visit={`/ledger/${visitId}`}
                chart={chart}
                along={along}
                checks={
                  a
                    ? sessionChecks(
                        s,
                        a,
                        outlet?.ratedKW ?? (stall && plateKW(stall, a.connectorId)),
                        car?.fields.usableKWh ?? null,
                        isAC(page, s) ? 'ac' : 'dc',
                        {
                          ...page.around,
                          // Of the visit: told once.
                          cost: s === page.sessions.at(-1) ? page.around.cost : null,
                        },
                      )
                    : []
                }
                loss={car && whole?.kWh != null ? lossOf(whole.kWh, whole.coveredTo - whole.coveredFrom, car.fields.usableKWh) : null}
                csv={powerCsv(chart)}
                basis={basisOf(page, s)}
                distance={who.wishes.distance}
                stretch={{
                  form: <StretchForm action={`/ledger/${visitId}/power`} kept={{ ...alongAs(along), ...laidAs }} {...stretch} />,
                  words: stretch.asked ? stretchWords(s, ...stretch.asked, page.range, { distance: who.wishes.distance, zone: visit.zone }) : [],
                }}
              />
            </div>
          );
        })
      )}
      {page.sessions.length > 0 ? (
        <ForDrivers>
          <CarLog visitId={visitId} logs={await carLogsOf(who, visitId)} />
        </ForDrivers>
      ) : null}
    </div>
  );
}

/** The stretch of the battery that the address asks for; what is none is told, and stands in its field as it was typed. */
function stretchAsked(query: Query) {
  const [from = '', to = ''] = [one(query, 'from'), one(query, 'to')];
  const [first, last] = [typedLevel(from), typedLevel(to)];
  const wrong = wrongLevels({ from: first, to: last });
  const both = typeof first === 'number' && typeof last === 'number';
  const problem =
    wrong.length > 0
      ? noLevel(wrong)
      : both && last <= first
        ? 'The second level is to be above the first.'
        : both || (!from && !to)
          ? null
          : 'Type both levels.';
  return { from, to, wrong, problem, asked: both && problem === null ? ([first, last] as const) : null };
}

/** What the readings leave open and what the expected power rests on. */
function basisOf(page: VisitPower, s: SessionPower): string[] {
  const levels = [...new Set((s.series.soc?.y ?? []).map((y) => String(Math.round(y))))];
  const { soc, kW } = s.series.source;
  const delivered = deliveredWords(s.series);
  const seen = s.whole && s.whole.covered !== 'none' ? s.whole : null;
  const beyond = s.limits && seen ? beyondCurveWords(s.limits.car, seen.coveredFrom, seen.coveredTo) : null;
  return [
    ...(delivered ? [delivered] : []),
    levels.length > 0
      ? `Battery read at ${levels.join(', ')} % on the ${soc}’s screen${levels.length > 1 ? '; between them a curve that never falls' : ''}.`
      : 'The battery was not read.',
    kW ? `Power from the ${kW}’s screen.` : 'Power was not read: where the meter was, it is the meter’s.',
    ...leftOutWords(s.readings, s.series),
    isAC(page, s) ? (s.limits ? AC_BASIS : NO_ONBOARD) : curveWords(page, s),
    ...(beyond ? [beyond] : []),
    ...(s.limits && s.limits.all.unknown.length > 0 ? ['Pack volts are not noted: limits by amps are left out.'] : []),
  ];
}

const isAC = (page: VisitPower, { n }: SessionPower): boolean => {
  const outlet = page.outletOf(n);
  return outlet !== null && !isDC(outlet.connector);
};
const NO_ONBOARD = 'How much alternating current the car takes is not on file: note its onboard charger in the garage.';
function curveWords(page: VisitPower, { n, curveBy }: SessionPower): string {
  if (curveBy === null) return 'No curve of the car to hold the stall to: type one in the garage, or charge elsewhere a few times.';
  return curveBy.from === 'learnt'
    ? `The car’s own curve (${page.klassOf(n)}) from ${curveBy.sessions} sessions at other networks.`
    : 'The car’s curve as typed in the garage: too few sessions of its own at other networks yet.';
}
