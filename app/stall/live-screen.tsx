'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { rememberMeans, rememberOrder } from '@/client/store/habits';
import { phoneNow } from '@/client/touch/touch-time';
import { SILENT_S } from '@/client/visit-session/visit-here';
import type { Fault } from '@/core/faults/fault-list';
import { plateText } from '@/core/records/stall-plate';
import { printMoney, printPerKWh } from '@/core/units/money';
import { printCount, printStopwatch } from '@/core/units/print';
import { stallKWhSoFar } from '@/core/visit/delivered';
import { isDanger, isPlugged } from '@/core/visit/next-act';
import { orderOf } from '@/core/visit/start-order';
import { Pad } from '@/ui/pads/pad';
import { takesTouch } from '@/ui/pads/rest';
import { RunningClock } from '@/ui/pads/running-clock';
import { Milestone } from '@/ui/road/milestone';
import { type UprightMark, UprightTape } from '@/ui/tape/upright-tape';
import { AlarmStrip } from './alarm-strip';
import { KeptCorner } from './kept-corner';
import { later } from './later';
import { type Live, liveFacts } from './live-facts';
import { paidBy, secondPad, yellowPad } from './live-pads';
import { LiveSheets } from './live-sheets';
import { clockOf, markOf, runningPaint, undoLabel } from './live-words';
import type { Open } from './open-sheet';
import type { Draft, StallHands } from './stall-state';
import { StayCountdown } from './stay-countdown';
import { useAwakeScreen } from './use-awake-screen';
import { useShutter } from './use-shutter';
import { VisitOver } from './visit-over';
import { WithdrawnNote } from './withdrawn-note';

const ChargingBoard = later(() => import('./charging-board').then((m) => m.ChargingBoard), <div className="h-[233px] border-b-2 border-ink bg-card" />);

/** A visit while it runs: the tape being laid, the clock, and six pads that never move. */
export function LiveScreen({ state, hands }: { state: Live; hands: StallHands }) {
  const { visit, records } = state;
  const [open, setOpen] = useState<Open | null>(null);
  const body = useRef<HTMLDivElement>(null);
  useAwakeScreen(visit.pulledOutAt === null);
  const { lately, usual, dangers, who } = state;
  const facts = useMemo(() => liveFacts({ visit, records, who, lately, usual, dangers }), [visit, records, who, lately, usual, dangers]);
  useTick();
  const { attempt, charging, stall, site, network, tariff } = facts;
  const over = visit.pulledOutAt !== null;

  const marks = useMemo(() => {
    const stallName = (id: string) => records.stall.find((s) => s.id === id)?.fields.name ?? '';
    return visit.line.filter((e) => e.kind !== 'bill').map((e): UprightMark => markOf(e, state.kept, stallName));
  }, [visit, records, state.kept]);
  const onMark = useCallback((id: string) => setOpen({ sheet: 'mark', id }), []);
  const board = charging !== null || over;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new mark is brought into sight, or the board above the tape
  useEffect(() => {
    body.current?.scrollTo({ top: board ? 0 : body.current.scrollHeight });
  }, [marks.length, board]);

  // The order that worked here is what the pad proposes next time.
  const worked = attempt ? orderOf(attempt) : null;
  useEffect(() => {
    if (worked && attempt?.stallId) rememberOrder(attempt.stallId, network?.id, worked);
  }, [worked, attempt?.stallId, network?.id]);

  const act = (timeStamp: number, ...drafts: Draft[]) => {
    for (const d of drafts) if (d.kind === 'means_shown') rememberMeans(network?.id, d.payload);
    setOpen(null);
    void hands.act(timeStamp, ...drafts);
  };
  const paid = paidBy(facts.means);
  const onFault = async (fault: Fault, at: number) => {
    // What can hurt has a sheet of its own: nothing on it is about the charge.
    setOpen(fault.danger ? { sheet: 'danger', at } : { sheet: 'after_fault', fault, id: null, at });
    const [id = null] = await hands.act(
      at,
      fault.refusal && attempt && attempt.shows.length > 0
        ? { kind: 'means_refused', payload: { ...paid, fault: fault.code } }
        : { kind: 'fault', payload: { code: fault.code, side: fault.side } },
    );
    setOpen((now) => (now?.sheet === 'after_fault' && now.fault === fault ? { ...now, id } : now));
  };
  const ways = { act, open: setOpen, hands };
  const yellow = yellowPad(state, facts, ways);
  const second = secondPad(state, facts, ways);
  useShutter((t) => {
    if (takesTouch(hands.rest, t) && open === null) yellow.press(t);
  });

  const undoable = state.undoable.at(-1);
  const waitsForAnswer =
    attempt &&
    !attempt.ended &&
    !attempt.proof &&
    !attempt.accepted &&
    attempt.shows.length > 0 &&
    (attempt.refusals.at(-1)?.place ?? -1) < (attempt.shows.at(-1)?.place ?? 0);
  const byTariff = charging ? facts.expected(stallKWhSoFar(charging)) : null;

  return (
    <div className="mx-auto flex h-dvh max-w-[1280px] flex-col lg:grid lg:grid-cols-[minmax(0,1fr)_420px] lg:grid-rows-[auto_minmax(0,1fr)]">
      <div className="lg:col-span-2">
        <header className="flex items-center gap-3 bg-asphalt px-4 py-2.5 text-line">
          <Milestone text={stall?.fields.name ?? '?'} />
          <div className="min-w-0 grow">
            <h1 className="truncate text-lg">{site?.fields.name ?? 'Unknown site'}</h1>
            <p className="text-[13.5px] leading-snug text-line-2">
              {[
                state.observing ? 'observing' : null,
                network?.fields.name,
                stall ? plateText(stall.fields) : null,
                tariff ? `${printPerKWh(tariff.perKWh, tariff.currency)}/kWh` : null,
              ]
                .filter(Boolean)
                .join(', ')}
            </p>
          </div>
          <KeptCorner outbox={state.outbox} signedOut={state.signedOut} hands={hands} />
        </header>
        <NotKept state={state} />
        <TakeOver state={state} onTakeOver={() => void hands.takeOver()} />
        {visit.withdrawn ? <WithdrawnNote visit={visit} hands={hands} act={act} /> : null}
        <AlarmStrip alarms={facts.alarms} onReading={(t) => setOpen({ sheet: 'reading', at: t })} onStopped={(t) => setOpen({ sheet: 'gone', at: t })} />
        {facts.clocks.length > 0 ? <StayCountdown clocks={facts.clocks} now={phoneNow} /> : null}
      </div>
      <main ref={body} className="relative min-h-0 grow overflow-y-auto" aria-label="The visit so far">
        <div key={state.touches} className={state.touches > 0 ? 'flash' : ''} aria-hidden="true" />
        {over ? (
          <VisitOver
            visit={visit}
            noHelpline={facts.helpline === null && network && visit.line.some((e) => e.kind === 'help_called' || isDanger(e)) ? network.fields.name : null}
            onLeave={() => void hands.leaveVisit()}
            onRate={(at) => setOpen({ sheet: 'rating', at })}
            onHelpline={(at) => setOpen({ sheet: 'helpline', at })}
          />
        ) : charging ? (
          <ChargingBoard
            attempt={charging}
            tape={visit.tape}
            ratedKW={facts.ratedKW}
            byTariff={byTariff && tariff ? printMoney(byTariff, tariff.currency) : null}
            now={phoneNow}
          />
        ) : null}
        <div className={board ? 'relative' : 'relative min-h-full'}>
          <div className="absolute inset-y-0 left-0 w-[74px] bg-asphalt" aria-hidden="true" />
          <UprightTape marks={marks} tape={visit.tape} zone={visit.zone} running={runningPaint(visit)} onMark={onMark} />
          {board ? null : (
            <div className="relative pl-[74px]">
              <div className="px-3 pb-4 pt-1">
                <RunningClock {...clockOf(visit)} now={phoneNow} />
                {facts.usual ? (
                  <p className="text-[14px] text-ink-2">
                    {facts.usual.s === null
                      ? `Fewer than half of ${facts.usual.attempts} attempts like this at this ${facts.usual.of} got power`
                      : `Usual at this ${facts.usual.of}: ${printStopwatch(facts.usual.s)}, of ${facts.usual.attempts} attempts`}
                  </p>
                ) : null}
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
                {facts.next === 'plugged' || facts.next === 'adapter_fitted' ? (
                  <p className="mt-2 text-[14px] text-ink-2">
                    {facts.adapter ? 'One adapter only, within its rated amps and volts. ' : ''}No damaged connector, none that is wet inside. Keep the cable
                    off the way.
                  </p>
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
        data-resting={hands.rest.now}
      >
        <Pad tone="next" className="col-span-2 min-h-[88px] text-[24px] font-extrabold" hint={yellow.hint} onPress={yellow.press} rest={hands.rest}>
          {yellow.text}
        </Pad>
        <Pad hint={second.hint} onPress={second.press} rest={hands.rest} unavailable={over && facts.next === 'done'}>
          {second.text}
        </Pad>
        <Pad
          tone="bad"
          hint={charging ? 'stopped, slow, hot' : 'error, nothing, stopped'}
          onPress={(t) => setOpen({ sheet: 'fault', at: t })}
          rest={hands.rest}
        >
          Fault
        </Pad>
        <div className="col-span-2 grid grid-cols-3 gap-2.5">
          <Pad onPress={(t) => setOpen({ sheet: 'change', at: t })} rest={hands.rest}>
            Changed
          </Pad>
          <Pad hint={undoable ? undoLabel(undoable, visit) : 'nothing'} onPress={(t) => void hands.undo(t)} rest={hands.rest} unavailable={!undoable}>
            Undo
          </Pad>
          <Pad onPress={(t) => setOpen({ sheet: 'more', at: t })} rest={hands.rest}>
            More
          </Pad>
        </div>
      </div>
      {open ? <LiveSheets open={open} setOpen={setOpen} state={state} facts={facts} hands={hands} act={act} onFault={(f, at) => void onFault(f, at)} /> : null}
    </div>
  );
}

/** Draws what grows old anew, though nothing was recorded: "2 min ago". */
function useTick(): void {
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), 10_000);
    return () => clearInterval(timer);
  }, []);
}

/** Offered to whoever looks on, when the phone that records has been silent so long that it may be dead. */
function TakeOver({ state, onTakeOver }: { state: Live; onTakeOver: () => void }) {
  const { silent_s: silent, visit } = state;
  if (silent === null || silent < SILENT_S || visit.pulledOutAt !== null) return null;
  return (
    <section aria-label="Who records" className="border-b-2 border-ink bg-picked px-4 py-2">
      <p className="text-[15px]">
        The phone that records has been silent{Number.isFinite(silent) ? ` for ${Math.floor(silent / 60)} min` : ''}. What you note here stands beside its
        record.
      </p>
      <button type="button" className="plate mt-1.5 !min-h-[44px]" onClick={onTakeOver}>
        This phone records now
      </button>
    </section>
  );
}

/** Said at once when the phone cannot write down what is recorded. */
function NotKept({ state }: { state: Live }) {
  if (!state.cannotKeep) return null;
  const { inMemory = 0, photos = 0 } = state.outbox ?? {};
  const things = [inMemory > photos ? printCount(inMemory - photos, 'event') : '', photos > 0 ? printCount(photos, 'picture') : ''].filter(Boolean);
  return (
    <div role="alert" className="border-b-2 border-fault bg-fault-card px-4 py-2 text-[14px]">
      <b>This phone cannot keep what you record: {state.cannotKeep}.</b>{' '}
      {inMemory > 0
        ? `${things.join(' and ')} ${inMemory === 1 ? 'is' : 'are'} held in this page only. Do not close it before the corner says all sent.`
        : 'What you record is held in this page and sent at once. Do not close it while anything waits.'}
    </div>
  );
}
