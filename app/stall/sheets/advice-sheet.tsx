'use client';
import { useEffect, useState } from 'react';
import { type NextLeg, nextLeg, rememberLeg } from '@/client/store/habits';
import { phoneNow } from '@/client/touch/touch-time';
import { beyondCurveWords } from '@/core/power/beyond-curve';
import { type StayAdvice, type StayAsked, stayOrGo } from '@/core/power/stay-or-go';
import { deadlineWhen, leaveBelow, stayHeadline, stayReason, wholePct } from '@/core/power/stay-words';
import { kmApart } from '@/core/records/place-questions';
import { type DistanceUnit, fromKm, toKm } from '@/core/units/distance';
import { printMoney } from '@/core/units/money';
import { printConsumption, printDistance, printDuration, printKW } from '@/core/units/print';
import { printTime } from '@/core/units/zoned';
import { type DigitField, DigitPad } from '@/ui/pads/digit-pad';
import { Sheet } from '@/ui/pads/sheet';
import { adviceAsked } from '../advice';
import type { Live, LiveFacts } from '../live-facts';

type Props = { state: Live; facts: LiveFacts; onClose: () => void };

/** Stay or go, with its reason, the next tens, what is coming, and how it was worked out. */
export function AdviceSheet({ state, facts, onClose }: Props) {
  const { visitId, visit, who } = state;
  const [leg, setLeg] = useState(() => nextLeg(visitId));
  const [setting, setSetting] = useState(false);
  const [now, setNow] = useState(phoneNow);
  useEffect(() => {
    const timer = setInterval(() => setNow(phoneNow()), 5000);
    return () => clearInterval(timer);
  }, []);
  const asked = adviceAsked(state, facts, leg, now);
  const advice = asked && stayOrGo(asked);
  const unit = who.wishes.distance;
  if (setting)
    return (
      <Sheet title="Where next?" onClose={onClose}>
        <LegForm
          leg={leg}
          state={state}
          unit={unit}
          onKeep={(next) => {
            rememberLeg(next);
            setLeg(next);
            setSetting(false);
          }}
        />
      </Sheet>
    );
  const legWords = leg.next
    ? `${state.records.site.find((s) => s.id === leg.next?.siteId)?.fields.name ?? 'A stop'}, ${printDistance(leg.next.km, unit)}`
    : leg.km === null
      ? 'not set'
      : printDistance(leg.km, unit);
  return (
    <Sheet title={asked && advice ? stayHeadline(advice, asked, now, visit.zone) : 'Stay or go'} onClose={onClose}>
      {asked && advice ? (
        <>
          <p className="text-[16px] leading-snug">{stayReason(advice, asked).join(' ')}</p>
          <TwoTimes advice={advice} asked={asked} now={now} zone={visit.zone} />
          <Ahead advice={advice} />
          {advice.rows.length > 0 ? <NextTens advice={advice} currency={facts.currency} unit={unit} /> : null}
        </>
      ) : (
        <p className="text-[16px]">{whyNot(facts)}</p>
      )}
      <dl className="mt-2 text-[15px]">
        {(asked?.deadlines ?? []).map((d) => (
          <div key={d.why} className="flex items-baseline gap-3 border-b border-rule-2 py-2">
            <dt className="grow">{d.why}</dt>
            <dd className="num">{d.in_min < 0 ? deadlineWhen(d.in_min) : `in ${printDuration(d.in_min * 60)}`}</dd>
          </div>
        ))}
        {typeof advice?.need?.fallbackPct === 'number' ? (
          <div className="flex items-baseline gap-3 border-b border-rule-2 py-2">
            <dt className="grow">Turn to the fallback at the latest at</dt>
            <dd className="num">{wholePct(advice.need.fallbackPct)}</dd>
          </div>
        ) : null}
        <div className="flex items-baseline gap-3 border-b border-rule-2 py-1">
          <dt className="grow">
            Next leg{' '}
            <button type="button" className="min-h-[44px] font-semibold text-shake underline" onClick={() => setSetting(true)}>
              {legWords}
            </button>
          </dt>
          <dd className="num">{asked?.kWhPer100km ? printConsumption(asked.kWhPer100km, who.wishes.consumption) : 'consumption not noted'}</dd>
        </div>
      </dl>
      {asked && advice ? <Working advice={advice} asked={asked} unit={unit} /> : null}
    </Sheet>
  );
}

function whyNot({ car, stall, charging }: LiveFacts): string {
  if (!charging) return 'Nothing is charging just now.';
  if (!car) return 'Which car this is was not noted: without it nothing can be reckoned.';
  if (!stall) return 'At which stall this is was not noted: without it nothing can be reckoned.';
  return 'After two readings of the battery it says how long to stay. Each reading corrects it.';
}

function TwoTimes({ advice, asked, now, zone }: { advice: StayAdvice; asked: StayAsked; now: number; zone: string }) {
  const { need, leave } = advice;
  // While no power flows, nothing is at a time of day.
  const at = (pct: number) => {
    const min = pct <= advice.nowPct ? 0 : advice.minutesTo(pct);
    return min === null ? 'never' : asked.paused ? `${Math.ceil(min)} min` : printTime(now + min * 60_000, zone);
  };
  const earliest = leave ? leave.neededThere : (need?.neededPct ?? null);
  if (earliest === null || (!leave?.best && !need?.feasible)) return null;
  const best = leave?.best ? leave : null;
  const [lo, hi] = best?.best ? best.leaveOk : [0, 0];
  const below = leaveBelow(advice);
  return (
    <dl className="mt-3 grid grid-cols-2 border-b border-t-2 border-b-rule border-t-ink">
      <div className="border-r border-rule py-2 pr-2">
        <dt className="text-[13px] font-semibold text-ink-2">You may leave {asked.paused ? 'after, of power' : 'from'}</dt>
        <dd>
          <span className="num block text-[24px] font-semibold">{earliest <= advice.nowPct ? 'now' : at(earliest)}</span>
          <span className="text-[13px] text-ink-2">
            {wholePct(earliest)}: {need?.reserveFrom === 'fallback' ? 'leg and fallback covered' : `leg and ${asked.reservePct} % reserve covered`}
          </span>
        </dd>
      </div>
      <div className="py-2 pl-3">
        {best?.best ? (
          <>
            <dt className="text-[13px] font-semibold text-ink-2">Best to leave{asked.paused ? ', of power' : ''}</dt>
            <dd>
              <span className="num block text-[24px] font-semibold">
                {best.best.leavePct <= advice.nowPct ? 'now' : hi - lo > 1 ? `${at(lo)}–${at(hi)}` : at(best.best.leavePct)}
              </span>
              <span className="text-[13px] text-ink-2">
                {wholePct(best.best.leavePct)}
                {below ? `, or at ${below}` : ''}
              </span>
            </dd>
          </>
        ) : (
          <>
            <dt className="text-[13px] font-semibold text-ink-2">Leave by</dt>
            <dd>
              <span className="num block text-[24px] font-semibold">{need?.leaveBy ? printTime(now + need.leaveBy.in_min * 60_000, zone) : 'no limit'}</span>
              <span className="text-[13px] text-ink-2">{need?.leaveBy ? need.leaveBy.why : 'none is noted here'}</span>
            </dd>
          </>
        )}
      </div>
    </dl>
  );
}

const [W, H] = [340, 70];
/** What is to come along the battery: dashed, with the band in which it should lie. */
function Ahead({ advice }: { advice: StayAdvice }) {
  const { projected } = advice;
  const kWs = projected.flatMap((p, i) => {
    const q = projected[i + 1];
    return q && q.min > p.min ? [{ pct: p.socPct, rate: (q.socPct - p.socPct) / (q.min - p.min) }] : [];
  });
  const most = Math.max(...kWs.map((k) => k.rate), 0);
  if (kWs.length < 2 || most <= 0) return null;
  const from = advice.nowPct;
  const x = (pct: number) => ((pct - from) / (100 - from)) * W;
  const y = (rate: number) => H - 4 - (rate / most) * (H - 14);
  const last = projected.at(-1);
  const band = last && last.min > 0 ? [last.low / last.min, last.high / last.min] : [1, 1];
  const line = (by: number) => kWs.map((k) => `${x(k.pct).toFixed(1)},${y(k.rate / by).toFixed(1)}`).join(' ');
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="mt-3 block w-full bg-asphalt"
      role="img"
      aria-label={`What is to come, from ${Math.round(from)} to 100 %, by the curve and this session`}
    >
      <polygon
        points={`${line(band[0] as number)} ${[...kWs]
          .reverse()
          .map((k) => `${x(k.pct).toFixed(1)},${y(k.rate / (band[1] as number)).toFixed(1)}`)
          .join(' ')}`}
        fill="var(--paint)"
        opacity="0.3"
      />
      <polyline points={line(1)} fill="none" stroke="var(--paint)" strokeWidth="3" strokeDasharray="7 5" />
      <text x="4" y={H - 5} fontSize="11" fill="var(--line-2)">
        {Math.round(from)} %
      </text>
      <text x={W - 4} y="12" fontSize="11" textAnchor="end" fill="var(--line-2)">
        100 %
      </text>
    </svg>
  );
}

function NextTens({ advice, currency, unit }: { advice: StayAdvice; currency: string; unit: DistanceUnit }) {
  const { says } = advice;
  const aim = says.is === 'stay' || says.is === 'about' ? says.pct : null;
  return (
    <table className="mt-3 w-full text-[15px]">
      <thead>
        <tr className="border-b border-ink text-right text-[13px] text-ink-2">
          <th scope="col" className="py-1 text-left font-semibold">
            to
          </th>
          <th scope="col" className="font-semibold">
            min
          </th>
          <th scope="col" className="font-semibold">
            {currency}
          </th>
          <th scope="col" className="font-semibold">
            {unit}
          </th>
          <th scope="col" className="font-semibold">
            {unit}/min
          </th>
        </tr>
      </thead>
      <tbody className="num">
        {advice.rows.map((r) => (
          <tr key={r.to} className={`border-b border-rule-2 text-right ${aim !== null && r.from < aim && aim <= r.to ? 'bg-picked font-semibold' : ''}`}>
            <th scope="row" className="py-1 text-left font-normal">
              {r.to} %
            </th>
            <td>{r.minutes === null ? 'never' : r.minutes.toFixed(1)}</td>
            <td>{r.money === null ? '\u2003' : printMoney(r.money.toFixed(6), currency).replace(/^[^\d]+/, '')}</td>
            <td>{r.range_km === null ? '\u2003' : Math.round(fromKm(r.range_km, unit))}</td>
            <td>{r.range_km_per_min === null ? '\u2003' : fromKm(r.range_km_per_min, unit).toFixed(1)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Working({ advice, asked, unit }: { advice: StayAdvice; asked: StayAsked; unit: DistanceUnit }) {
  const { spread, next } = asked;
  const rule = advice.leave?.best ? advice.leave.rule : null;
  const lines: (string | null)[] = [
    `Now about ${advice.nowPct.toFixed(1)} %, from the last reading on${advice.kW === null ? '' : `, at about ${printKW(advice.kW)}`}.`,
    `By the last readings ${Math.round(advice.pace * 100)} % of what ${asked.setting.stall.kind === 'ac' ? 'car and stall' : asked.curved ? 'the car’s curve and the stall' : 'the last reading'} would give comes.`,
    beyondCurveWords(advice.curve, advice.nowPct, 100),
    advice.need ? `Way ${advice.need.legPct.toFixed(1)} %, reserve ${advice.need.reserveUsedPct.toFixed(1)} % (${advice.need.reserveFrom}).` : null,
    asked.kWhPer100km ? `Consumption ${asked.measured ? 'as measured on the way here' : 'the usual, as typed in'}.` : null,
    next && advice.leave
      ? `At ${next.name}: charge to ${Math.round(advice.leave.chargeThereTo)} %, ${advice.leave.overhead_min.toFixed(1)} min for handshake and starts that fail${next.toThere.min > 0 ? `; drives at ${Math.round(fromKm((next.toThere.km / next.toThere.min) * 60, unit))} ${unit === 'km' ? 'km/h' : 'mph'}` : ''}.`
      : null,
    rule ? `By the rule alone (leave when power there is more): ${Math.round(rule.leavePct)} %.` : null,
    spread
      ? `80 % of ${spread.n} past projections lay within ${Math.round(spread.low * 100)} to ${Math.round(spread.high * 100)} % of their minutes${Number.isFinite(spread.held) ? `; such bands held ${Math.round(spread.held * 100)} % of the time` : ''}.`
      : 'Fewer than five past sessions: no band is said.',
    'Money is an estimate by the price on file. The car’s own warnings and its manual go first.',
  ];
  return (
    <details className="mt-2 text-[14px]">
      <summary className="min-h-[44px] cursor-pointer py-2.5 font-semibold text-shake">How this was worked out</summary>
      <ul className="text-ink-2">
        {lines.flatMap((l) =>
          l
            ? [
                <li key={l} className="border-b border-rule-2 py-1">
                  {l}
                </li>,
              ]
            : [],
        )}
      </ul>
    </details>
  );
}

/** Where the drive goes: a distance, or a site to stop at with the way on from there. */
function LegForm({ leg, state, unit, onKeep }: { leg: NextLeg; state: Live; unit: DistanceUnit; onKeep: (leg: NextLeg) => void }) {
  const sites = state.records.site.filter((s) => !s.archived && s.id !== state.visit.siteId).sort((a, b) => a.fields.name.localeCompare(b.fields.name));
  const text = (km: number | null | undefined) => (km === null || km === undefined ? '' : String(fromKm(km, unit)));
  const [siteId, setSiteId] = useState(leg.next?.siteId ?? '');
  const [values, setValues] = useState<Record<string, string>>({
    km: text(leg.km),
    reserve: String(leg.reservePct),
    fallback: text(leg.fallback_km),
    there: text(leg.next?.km),
    after: text(leg.next?.after_km),
    direct: text(leg.next?.direct_km),
    speed: String(Math.round(fromKm(leg.kmh, unit))),
  });
  const [problem, setProblem] = useState<string | null>(null);
  const at = (id: string | null) => state.records.site.find((s) => s.id === id)?.fields;
  const [here, there] = [at(state.visit.siteId), at(siteId)];
  const apart = here && there ? kmApart(here, there) : null;
  const far = { unit, max: 2000, decimals: 1 } as const;
  const fields: DigitField[] = siteId
    ? [
        { key: 'there', label: 'To there', ...far },
        { key: 'after', label: 'From there', ...far },
        { key: 'direct', label: 'Straight on', ...far },
        { key: 'speed', label: 'Speed', unit: unit === 'km' ? 'km/h' : 'mph', max: 200, decimals: 0 },
        { key: 'fallback', label: 'To fallback', ...far },
        { key: 'reserve', label: 'Reserve', unit: '%', max: 60, decimals: 0 },
      ]
    : [
        { key: 'km', label: 'Next leg', ...far },
        { key: 'reserve', label: 'Reserve', unit: '%', max: 60, decimals: 0 },
        { key: 'fallback', label: 'To fallback', ...far },
      ];
  const km = (key: string) => (values[key] ? toKm(Number(values[key]), unit) : null);
  const keep = () => {
    const kept = {
      visitId: leg.visitId,
      reservePct: values.reserve ? Number(values.reserve) : leg.reservePct,
      fallback_km: km('fallback'),
      kmh: km('speed') || leg.kmh,
    };
    if (!siteId) return onKeep({ ...kept, km: km('km'), next: null });
    const toThere = km('there');
    if (toThere === null) return setProblem('Type how far it is to there.');
    onKeep({ ...kept, km: null, next: { siteId, km: toThere, after_km: km('after') ?? 0, direct_km: km('direct') } });
  };
  return (
    <>
      <label className="mb-3 block text-[15px] font-semibold">
        Stop on the way at
        <select
          className="mt-1 block min-h-[48px] w-full border-2 border-ink bg-card px-2 text-[16px]"
          value={siteId}
          onChange={(e) => setSiteId(e.target.value)}
        >
          <option value="">no known site: to the end of the leg</option>
          {sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.fields.name}
            </option>
          ))}
        </select>
      </label>
      {apart === null ? null : <p className="mb-3 text-[14px] text-ink-2">{printDistance(apart, unit)} as the crow flies; the road is longer.</p>}
      <DigitPad
        key={siteId}
        fields={fields}
        values={values}
        onChange={(v) => {
          setValues(v);
          setProblem(null);
        }}
        onSave={keep}
        saveLabel="Keep"
        problem={problem}
      />
    </>
  );
}
