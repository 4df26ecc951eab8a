'use client';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { rememberMeans } from '@/client/store/habits';
import { phoneNow } from '@/client/touch/touch-time';
import type { Fault } from '@/core/faults/fault-list';
import { carIsMeans, meansPad } from '@/core/records/means-kind';
import { expectedBill, tariffOn } from '@/core/tariff/simple-tariff';
import { printMoney, printPerKWh } from '@/core/units/money';
import { localDay } from '@/core/units/zoned';
import { sessionStallKWh } from '@/core/visit/delivered';
import type { Visit } from '@/core/visit/derive';
import { isPlugged, nextAct } from '@/core/visit/next-act';
import { Pad } from '@/ui/pads/pad';
import { RunningClock } from '@/ui/pads/running-clock';
import { Milestone } from '@/ui/road/milestone';
import { type UprightMark, UprightTape } from '@/ui/tape/upright-tape';
import { KeptCorner } from './kept-corner';
import { clockOf, lastReading, markOf, runningPaint, undoLabel } from './live-words';
import { useAwakeScreen } from './use-awake-screen';
import type { Draft, StallHands, StallState } from './use-stall';
import { usualMeans } from './usual-means';
import { VisitOver } from './visit-over';

const ChargingBoard = lazy(() => import('./charging-board').then((m) => ({ default: m.ChargingBoard })));
const FaultSheet = lazy(() => import('./fault-sheet').then((m) => ({ default: m.FaultSheet })));
const AfterFaultSheet = lazy(() => import('./fault-sheet').then((m) => ({ default: m.AfterFaultSheet })));
const StallSheet = lazy(() => import('./stall-sheet').then((m) => ({ default: m.StallSheet })));
const ReadingSheet = lazy(() => import('./reading-sheet').then((m) => ({ default: m.ReadingSheet })));
const BillSheet = lazy(() => import('./bill-sheet').then((m) => ({ default: m.BillSheet })));
const MoreSheet = lazy(() => import('./more-sheet').then((m) => ({ default: m.MoreSheet })));
const ChangeSheet = lazy(() => import('./more-sheet').then((m) => ({ default: m.ChangeSheet })));
const LeaveSheet = lazy(() => import('./more-sheet').then((m) => ({ default: m.LeaveSheet })));
const MarkSheet = lazy(() => import('./mark-sheet').then((m) => ({ default: m.MarkSheet })));

type Open =
  | { sheet: 'fault' | 'stall' | 'reading' | 'bill' | 'more' | 'change' | 'leave'; at: number }
  | { sheet: 'after_fault'; fault: Fault }
  | { sheet: 'mark'; id: string }
  | null;
type Live = Extract<StallState, { is: 'ready' }> & { visit: Visit; visitId: string };

/** A visit while it runs: the tape being laid, the clock, and six pads that never move. */
export function LiveScreen({ state, hands }: { state: Live; hands: StallHands }) {
  const { visit, records, who } = state;
  const [open, setOpen] = useState<Open>(null);
  const body = useRef<HTMLDivElement>(null);
  useAwakeScreen(visit.pulledOutAt === null);

  const attempt = visit.attempts.at(-1);
  const site = records.site.find((s) => s.id === visit.siteId);
  const network = records.network.find((n) => n.id === site?.fields.networkId);
  const chosenId = visit.line.filter((e) => e.kind === 'stall_chosen').at(-1)?.payload.stallId ?? null;
  const stall = records.stall.find((s) => s.id === chosenId);
  const means = usualMeans(visit, records, network?.id);
  const next = nextAct(visit, carIsMeans(means.meansKind));
  const tariff = tariffOn(
    records.tariff.map((t) => ({ id: t.id, ...t.fields })),
    network?.id ?? null,
    localDay(visit.pulledInAt ?? visit.lastEventAt, visit.zone),
  );
  const charging = attempt?.proof && !attempt.ended && !attempt.stopAsked ? attempt : null;
  const currency = tariff?.currency ?? who.currency;
  const expectedFor = (kWh: string | undefined) =>
    tariff && kWh !== undefined
      ? printMoney(expectedBill(tariff, kWh, Math.max(1, visit.attempts.filter((a) => a.proof).length)).total, tariff.currency)
      : null;

  const stallName = (id: string) => records.stall.find((s) => s.id === id)?.fields.name ?? '';
  const marks = visit.line.filter((e) => e.kind !== 'bill').map((e): UprightMark => markOf(e, state.kept, stallName));
  const board = charging !== null || visit.pulledOutAt !== null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new mark is brought into sight, or the board above the tape
  useEffect(() => {
    body.current?.scrollTo({ top: board ? 0 : body.current.scrollHeight });
  }, [marks.length, board]);

  const act = (timeStamp: number, ...drafts: Draft[]) => {
    for (const d of drafts) if (d.kind === 'means_shown') rememberMeans(network?.id, d.payload);
    setOpen(null);
    void hands.act(timeStamp, ...drafts);
  };
  const paid = { meansKind: means.meansKind, ...(means.meansId ? { meansId: means.meansId } : {}) };
  const onFault = (fault: Fault, at: number) => {
    void hands.act(
      at,
      fault.refusal && attempt && attempt.shows.length > 0
        ? { kind: 'means_refused', payload: { ...paid, fault: fault.code } }
        : { kind: 'fault', payload: { code: fault.code, side: fault.side } },
    );
    setOpen({ sheet: 'after_fault', fault });
  };

  const yellow: Record<ReturnType<typeof nextAct>, { text: string; hint: string; press: (t: number) => void }> = {
    pulled_in: { text: 'Pulled in', hint: '', press: () => {} },
    choose_stall: { text: 'Choose the stall', hint: 'which bay do you stand in', press: (t) => setOpen({ sheet: 'stall', at: t }) },
    plugged: { text: 'Plugged in', hint: stall ? `stall ${stall.fields.name}` : '', press: (t) => act(t, { kind: 'plugged', payload: {} }) },
    means_shown: { text: meansPad(means.meansKind), hint: means.label ?? 'change it under More', press: (t) => act(t, { kind: 'means_shown', payload: paid }) },
    power_seen: {
      text: 'I see power',
      hint: 'kW or kWh above zero on either screen: tap now',
      press: (t) => act(t, { kind: 'power_seen', payload: { screen: 'stall', mark: 'kW' } }),
    },
    reading: { text: 'Add a reading', hint: lastReading(attempt, phoneNow()), press: (t) => setOpen({ sheet: 'reading', at: t }) },
    unplugged: { text: 'Unplugged', hint: 'once stall and car both say it has ended', press: (t) => act(t, { kind: 'unplugged', payload: {} }) },
    pulled_out: { text: 'Pulled out', hint: 'enough charged', press: (t) => act(t, { kind: 'pulled_out', payload: { reason: 'enough' } }) },
    bill: {
      text: 'Bill',
      hint: expectedFor(visit.delivered.known ? visit.delivered.value : undefined)
        ? `by tariff about ${expectedFor(visit.delivered.known ? visit.delivered.value : undefined)}`
        : 'what was charged',
      press: (t) => setOpen({ sheet: 'bill', at: t }),
    },
    done: { text: 'Done', hint: 'the visit is in the ledger', press: () => void hands.leaveVisit() },
  };
  const y = yellow[next];
  const over = visit.pulledOutAt !== null;
  const second = over
    ? { text: 'No bill yet', hint: 'leave it for later', press: () => void hands.leaveVisit() }
    : attempt && !attempt.ended && attempt.stopAsked
      ? { text: 'Power gone', hint: 'the screen says ended', press: (t: number) => act(t, { kind: 'power_gone', payload: { why: 'asked' } }) }
      : charging
        ? { text: 'I pressed stop', hint: 'button, card, app or car', press: (t: number) => act(t, { kind: 'stop_asked', payload: { by: 'button' } }) }
        : attempt?.ended && next !== 'plugged'
          ? { text: next === 'pulled_out' ? 'Left otherwise' : 'Pulled out', hint: 'choose why', press: (t: number) => setOpen({ sheet: 'leave', at: t }) }
          : { text: 'Says charging', hint: 'shows no power yet', press: (t: number) => act(t, { kind: 'claimed', payload: { by: 'screen' } }) };
  const waitsForAnswer =
    attempt &&
    !attempt.ended &&
    !attempt.proof &&
    !attempt.accepted &&
    attempt.shows.length > 0 &&
    (attempt.refusals.at(-1)?.t ?? 0) < (attempt.shows.at(-1)?.t ?? 0);
  const undoText = hands.undoable ? undoLabel(hands.undoable, visit) : 'nothing';

  return (
    <div className="mx-auto flex h-dvh max-w-[1280px] flex-col lg:grid lg:grid-cols-[minmax(0,1fr)_420px] lg:grid-rows-[auto_minmax(0,1fr)]">
      <header className="flex items-center gap-3 bg-asphalt px-4 py-2.5 text-line lg:col-span-2">
        <Milestone text={stall?.fields.name ?? '?'} />
        <div className="min-w-0 grow">
          <h1 className="truncate text-lg">{site?.fields.name ?? 'Unknown site'}</h1>
          <p className="text-[13.5px] leading-snug text-line-2">
            {[
              network?.fields.name,
              stall ? `${stall.fields.ratedKW} kW ${stall.fields.connector}` : null,
              tariff ? `${printPerKWh(tariff.perKWh, tariff.currency)}/kWh` : null,
            ]
              .filter(Boolean)
              .join(', ')}
          </p>
        </div>
        <KeptCorner outbox={state.outbox} signedOut={state.signedOut} hands={hands} />
      </header>
      <main ref={body} className="relative min-h-0 grow overflow-y-auto" aria-label="The visit so far">
        <div key={hands.flash} className={hands.flash > 0 ? 'flash' : ''} aria-hidden="true" />
        {over ? (
          <VisitOver visit={visit} onLeave={() => void hands.leaveVisit()} />
        ) : charging ? (
          <Suspense fallback={<div className="h-[233px] border-b-2 border-ink bg-card" />}>
            <ChargingBoard
              attempt={charging}
              tape={visit.tape}
              ratedKW={stall?.fields.ratedKW ?? null}
              byTariff={expectedFor(sessionStallKWh(charging))}
              now={phoneNow}
            />
          </Suspense>
        ) : null}
        <div className={over || charging ? 'relative' : 'relative min-h-full'}>
          <div className="absolute inset-y-0 left-0 w-[74px] bg-asphalt" aria-hidden="true" />
          <UprightTape marks={marks} tape={visit.tape} zone={visit.zone} running={runningPaint(visit)} onMark={(id) => setOpen({ sheet: 'mark', id })} />
          {over || charging ? null : (
            <div className="relative pl-[74px]">
              <div className="px-3 pb-4 pt-1">
                <RunningClock {...clockOf(visit)} now={phoneNow} />
                {waitsForAnswer ? (
                  <div className="mt-2 flex gap-2">
                    <button type="button" className="plate !min-h-[48px] grow" onClick={(e) => act(e.timeStamp, { kind: 'means_accepted', payload: paid })}>
                      Accepted
                    </button>
                    <button
                      type="button"
                      className="plate plate-bad !min-h-[48px] grow"
                      onClick={(e) => act(e.timeStamp, { kind: 'means_refused', payload: paid })}
                    >
                      Refused
                    </button>
                  </div>
                ) : null}
                {attempt && !attempt.ended && !attempt.proof ? (
                  <p className="mt-2 text-[14px] text-ink-2">If you give up, end it at the stall first. Each further card shown may mean another hold.</p>
                ) : null}
                {isPlugged(visit) && attempt?.stopAsked ? (
                  <p className="mt-2 text-[14px] text-ink-2">
                    Treat the connector as live until stall and car both say the charge has ended. Never force or pull it.
                  </p>
                ) : null}
              </div>
            </div>
          )}
        </div>
      </main>
      <div
        className="grid grid-cols-2 content-start gap-2.5 border-t-2 border-ink bg-card lg:border-l-2 lg:border-t-0 px-3.5 pb-[max(14px,env(safe-area-inset-bottom))] pt-3"
        data-resting={hands.resting}
      >
        <Pad tone="next" className="col-span-2 min-h-[88px] text-[24px] font-extrabold" hint={y.hint} onPress={y.press} resting={hands.resting}>
          {y.text}
        </Pad>
        <Pad hint={second.hint} onPress={second.press} resting={hands.resting} unavailable={over && next === 'done'}>
          {second.text}
        </Pad>
        <Pad
          tone="bad"
          hint={charging ? 'stopped, slow, hot' : 'error, nothing, stopped'}
          onPress={(t) => setOpen({ sheet: 'fault', at: t })}
          resting={hands.resting}
        >
          Fault
        </Pad>
        <div className="col-span-2 grid grid-cols-3 gap-2.5">
          <Pad onPress={(t) => setOpen({ sheet: 'change', at: t })} resting={hands.resting}>
            Changed
          </Pad>
          <Pad hint={undoText} onPress={(t) => void hands.undo(t)} resting={hands.resting} unavailable={!hands.undoable}>
            Undo
          </Pad>
          <Pad onPress={(t) => setOpen({ sheet: 'more', at: t })} resting={hands.resting}>
            More
          </Pad>
        </div>
      </div>
      <Suspense>
        {open?.sheet === 'fault' ? <FaultSheet charging={charging !== null} onClose={() => setOpen(null)} onFault={(f) => onFault(f, open.at)} /> : null}
        {open?.sheet === 'after_fault' ? (
          <AfterFaultSheet
            fault={open.fault}
            onClose={() => setOpen(null)}
            onOtherStall={() => setOpen({ sheet: 'stall', at: performance.now() })}
            onLeave={() => setOpen({ sheet: 'leave', at: performance.now() })}
          />
        ) : null}
        {open?.sheet === 'stall' ? (
          <StallSheet
            records={records}
            siteId={visit.siteId}
            chosen={chosenId}
            currency={who.currency}
            hands={hands}
            onClose={() => setOpen(null)}
            onChoose={(id, t) => act(t, { kind: 'stall_chosen', payload: { stallId: id } })}
          />
        ) : null}
        {open?.sheet === 'reading' ? (
          <ReadingSheet
            attempt={attempt}
            ratedKW={stall?.fields.ratedKW ?? null}
            currency={currency}
            openedAt={open.at}
            onClose={() => setOpen(null)}
            onSave={act}
          />
        ) : null}
        {open?.sheet === 'bill' ? (
          <BillSheet
            currency={currency}
            expected={expectedFor(visit.delivered.known ? visit.delivered.value : undefined)}
            onClose={() => setOpen(null)}
            onSave={act}
          />
        ) : null}
        {open?.sheet === 'more' ? (
          <MoreSheet
            records={records}
            means={means}
            onClose={() => setOpen(null)}
            onAct={act}
            onSheet={(sheet) => setOpen({ sheet, at: performance.now() })}
            onAnother={() => void hands.leaveVisit()}
          />
        ) : null}
        {open?.sheet === 'change' ? <ChangeSheet onClose={() => setOpen(null)} onAct={act} /> : null}
        {open?.sheet === 'leave' ? <LeaveSheet onClose={() => setOpen(null)} onAct={act} /> : null}
        {open?.sheet === 'mark' ? <MarkOf id={open.id} state={state} onClose={() => setOpen(null)} onAct={act} /> : null}
      </Suspense>
    </div>
  );
}

function MarkOf({ id, state, onClose, onAct }: { id: string; state: Live; onClose: () => void; onAct: (t: number, d: Draft) => void }) {
  const event = state.visit.line.find((e) => e.id === id);
  const kept = state.kept.find((k) => k.event.id === id);
  if (!event) return null;
  return (
    <MarkSheet
      event={event}
      original={kept?.event.at ?? event.at}
      refused={kept?.state === 'refused' ? (kept.reason ?? 'refused') : null}
      onClose={onClose}
      onAct={onAct}
    />
  );
}
