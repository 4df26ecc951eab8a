'use client';
import { useMemo, useState } from 'react';
import { phoneNow } from '@/client/touch/touch-time';
import { limitText } from '@/core/power/answer-words';
import { bestStalls, bestWords, compatibleStalls, reportedReasons } from '@/core/power/compatible-stalls';
import { arrivalLines, bayLines } from '@/core/records/place-lines';
import type { RecordItem } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { byPost, plateKW, plateText } from '@/core/records/stall-plate';
import { printKW } from '@/core/units/print';
import { localDay, printSeen } from '@/core/units/zoned';
import { OneOf } from '@/ui/forms/one-of';
import { Milestone } from '@/ui/road/milestone';
import { ForDrivers } from '@/ui/road/role';
import { later } from '../later';
import type { StallHands, StallState } from './stall-state';

const ChangeSheet = later(() => import('./sheets/record-sheets').then((m) => m.ChangeRecordSheet));

const SEEN_TODAY = [
  ['closed', 'Closed today'],
  ['working', 'Works today'],
] as const;

/** The stalls of the chosen site for the chosen car, and what to know on arrival. Works from the phone's own copy. */
export function StallChoice({
  state,
  siteId,
  stallId,
  carId,
  hands,
  onStall,
  onAdd,
}: {
  state: Extract<StallState, { is: 'ready' }>;
  siteId: string;
  stallId: string | null;
  carId: string | null;
  hands: StallHands;
  onStall: (id: string | null) => void;
  onAdd: () => void;
}) {
  const { records, lately, dangers } = state;
  const [changing, setChanging] = useState<{ type: 'site' | 'stall'; id: string } | null>(null);
  const site = records.site.find((s) => s.id === siteId);
  const stalls = useMemo(() => records.stall.filter((s) => s.fields.siteId === siteId).sort(byPost), [records.stall, siteId]);
  const car = records.car.find((c) => c.id === carId);
  const today = site ? localDay(phoneNow(), site.fields.zone) : '';
  const answers = useMemo(
    () =>
      car && site
        ? compatibleStalls({ car, adapters: records.adapter, means: records.means, enrolments: records.enrolment }, { site, stalls, dangers }, lately, today)
        : [],
    [car, site, stalls, records.adapter, records.means, records.enrolment, lately, dangers, today],
  );
  if (!site) return null;
  const best = bestStalls(answers);
  const words = bestWords(answers, lately);
  const network = records.network.find((n) => n.id === site.fields.networkId);
  const arrival = arrivalLines(site.fields, network?.fields.helpline ?? null);
  const chosen = stalls.find((s) => s.id === stallId);
  const answer = answers.find((a) => a.stallId === stallId);
  const adapter = records.adapter.find((a) => a.id === answer?.way?.adapterId);
  const seen = (is: 'working' | 'closed') => {
    if (!chosen) return;
    const item: RecordItem<'stall'> = {
      type: 'stall',
      id: chosen.id,
      baseRev: chosen.rev,
      archived: false,
      fields: { ...chosen.fields, state: { is, kW: null, seenOn: today, by: state.who.name } },
    };
    void hands.addRecords([item]);
  };
  // What was seen on an earlier day is not yet seen today: pressed again it is.
  const noted = chosen?.fields.state;
  const stateSeen = noted?.seenOn === today && (noted.is === 'closed' || noted.is === 'working') ? noted.is : null;
  return (
    <>
      <OneOf
        label="Stall"
        headed={false}
        value={stallId}
        mayBeNone
        onChoose={onStall}
        look={(is) =>
          `grid min-w-[92px] justify-items-center rounded-lg border-4 bg-asphalt px-2 pb-1.5 pt-2.5 text-line ${is ? 'border-paint' : 'border-asphalt'}`
        }
        row="mt-2 flex flex-wrap gap-3"
        choices={stalls.map((s) => {
          const a = answers.find((x) => x.stallId === s.id);
          const isBest = best.includes(s.id);
          const kW = a?.kW ?? plateKW(s.fields) ?? 0;
          const called = `Stall ${s.fields.name}, ${plateText(s.fields)}${isBest ? `, ${words}` : ''}${a?.use === 'no' ? ', cannot be used' : ''}`;
          const shown = (
            <>
              <Milestone text={s.fields.name} />
              <span className="num mt-1 text-[12px]">{a?.use === 'no' ? 'not usable' : printKW(kW)}</span>
              <span className="text-[12px] text-line-2">
                {s.id === stallId
                  ? 'chosen'
                  : a?.use === 'no'
                    ? (a.reasons[0]?.code.replaceAll('_', ' ') ?? '')
                    : isBest
                      ? words.replace(' by the plates', '')
                      : a?.use === 'doubtful'
                        ? (a.reasons[0]?.code.replaceAll('_', ' ') ?? '')
                        : (s.fields.outlets[0]?.connector ?? '')}
              </span>
            </>
          );
          return [s.id, shown, called] as const;
        })}
      >
        <ForDrivers>
          <button type="button" className="plate !min-h-[104px] !min-w-[92px]" onClick={onAdd}>
            Add a stall
          </button>
        </ForDrivers>
      </OneOf>
      {chosen ? (
        <div className="mt-3 border-l-4 border-paint bg-card px-3 py-2 text-[14.5px]">
          <p className="font-bold">
            Stall {chosen.fields.name}: {plateText(chosen.fields)}
          </p>
          {answer && car ? (
            <p>
              {answer.kW === null
                ? `Not for the ${car.fields.name}: ${answer.reasons.map((r) => r.text).join('; ')}.`
                : `At most ${printKW(answer.kW)} for the ${car.fields.name}, set by ${answer.by ? limitText(answer.by) : 'nothing known'}${answer.reasons.length > 0 ? `; ${answer.reasons.map((r) => r.text).join('; ')}` : ''}.`}
              {answer.asSeen ? ` As seen ${printSeen(answer.asSeen)}.` : ''}
            </p>
          ) : null}
          {car ? null : reportedReasons(dangers[chosen.id] ?? []).map((r) => <p key={r.code}>Doubtful: {r.text}.</p>)}
          {adapter ? <p>Through {adapter.fields.name}: within its rated amps and volts, never two in a row. The car’s manual goes first.</p> : null}
          {bayLines(chosen.fields).map((l) => (
            <p key={l} className="text-ink-2">
              {l}
            </p>
          ))}
          <ForDrivers>
            <div className="mt-2 flex flex-wrap gap-2">
              <OneOf label="Seen today" headed={false} value={stateSeen} choices={SEEN_TODAY} onChoose={seen} />
              <button type="button" className="plate !min-h-[44px]" onClick={() => setChanging({ type: 'stall', id: chosen.id })}>
                Change this stall
              </button>
            </div>
          </ForDrivers>
        </div>
      ) : (
        <p className="mt-2 text-sm text-ink-2">Not sure which yet? Pull in first and choose the stall afterwards.</p>
      )}
      <div className="mt-4">
        <div className="flex items-baseline gap-3">
          <h2 className="text-[15px]">On arrival</h2>
          <ForDrivers>
            <button
              type="button"
              className="min-h-[44px] text-sm font-semibold text-shake underline"
              onClick={() => setChanging({ type: 'site', id: site.id })}
            >
              Change the site
            </button>
          </ForDrivers>
        </div>
        {arrival.length === 0 ? <p className="mt-1 text-sm text-ink-2">Nothing noted yet.</p> : null}
        <ul className="mt-1 list-disc pl-5 text-[14.5px] leading-snug">
          {arrival.map((l) => (
            <li key={l} className="mb-1">
              {l}
            </li>
          ))}
        </ul>
        {site.fields.note ? <p className="mt-1 text-[14.5px]">{site.fields.note}</p> : null}
      </div>
      {changing ? (
        <ChangeSheet
          state={state}
          type={changing.type satisfies RecordType}
          id={changing.id}
          today={today}
          onClose={() => setChanging(null)}
          onSave={async (items) => {
            await hands.addRecords(items);
            setChanging(null);
          }}
        />
      ) : null}
    </>
  );
}
