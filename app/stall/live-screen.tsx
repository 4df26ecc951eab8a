'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { rememberMeans, rememberOrder } from '@/client/store/habits';
import { phoneNow } from '@/client/touch/touch-time';
import type { Fault } from '@/core/faults/fault-list';
import { mayRecord } from '@/core/records/roles';
import { plateText } from '@/core/records/stall-plate';
import { isDanger } from '@/core/visit/next-act';
import { orderOf } from '@/core/visit/start-order';
import { Pad } from '@/ui/pads/pad';
import { takesTouch } from '@/ui/pads/rest';
import { RunningClock } from '@/ui/pads/running-clock';
import { Milestone } from '@/ui/road/milestone';
import { type UprightMark, UprightTape } from '@/ui/tape/upright-tape';
import { later } from '../later';
import { KeptCorner } from './kept-corner';
import { type Live, liveFacts } from './live-facts';
import { paidBy, secondPad, yellowPad } from './live-pads';
import { LiveSheets } from './live-sheets';
import { LiveStrip } from './live-strip';
import { clockOf, markOf, oneSentence, runningPaint, undoLabel } from './live-words';
import type { Open } from './open-sheet';
import type { Draft, StallHands } from './stall-state';
import { TrialStrip } from './trial-strip';
import { useAwakeScreen } from './use-awake-screen';
import { usePricing } from './use-pricing';
import { useShutter } from './use-shutter';
import { VisitOver } from './visit-over';

const ChargingBoard = later(
  () => import('./charging-board').then((m) => m.ChargingBoard),
  <div className="h-[233px] shrink-0 border-b-2 border-ink bg-card short:h-[52px]" />,
);

const AdviceLine = later(() => import('./advice-parts').then((m) => m.AdviceLine), <div className="min-h-[44px] shrink-0 border-b border-rule bg-card" />);
// Where it cannot be fetched, the advice above it says so.
const CostLine = later(() => import('./advice-parts').then((m) => m.CostLine), null, false);
const PriceHere = later(() => import('./advice-parts').then((m) => m.PriceHere), null, false);

/** Upright: one column. Lying, and on a desk: the pads beside it. */
const SHAPE =
  'mx-auto flex h-dvh max-w-[1280px] flex-col flat:grid flat:grid-cols-[minmax(0,1fr)_minmax(300px,44%)] flat:grid-rows-[auto_minmax(0,1fr)] lg:grid lg:grid-cols-[minmax(0,1fr)_420px] lg:grid-rows-[auto_minmax(0,1fr)]';
const FAULT_HINTS = { starting: 'error, nothing, stopped', charging: 'stopped, slow, hot', stopping: 'does not stop, stuck' };

/** A visit while it runs: the tape being laid, the clock, and six pads that never move. */
export function LiveScreen({ state, hands }: { state: Live; hands: StallHands }) {
  const { visit, records } = state;
  const [open, setOpen] = useState<Open | null>(null);
  const body = useRef<HTMLDivElement>(null);
  useAwakeScreen(visit.pulledOutAt === null);
  const { lately, usual, dangers, who } = state;
  const facts = useMemo(() => liveFacts({ visit, records, who, lately, usual, dangers }), [visit, records, who, lately, usual, dangers]);
  useTick();
  const { attempt, charging, stall, site, network } = facts;
  const over = visit.pulledOutAt !== null;

  const marks = useMemo(() => {
    const stallName = (id: string) => records.stall.find((s) => s.id === id)?.fields.name ?? '';
    return visit.line.filter((e) => e.kind !== 'bill').map((e): UprightMark => markOf(e, state.kept, stallName));
  }, [visit, records, state.kept]);
  const onMark = useCallback((id: string) => setOpen({ sheet: 'mark', id }), []);
  const board = charging !== null || over;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new mark is brought into sight, and the clock below it
  useEffect(() => {
    const bring = () => body.current?.scrollTo({ top: body.current.scrollHeight });
    if (over) return;
    bring();
    addEventListener('resize', bring);
    return () => removeEventListener('resize', bring);
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
    const recorded = hands
      .act(
        at,
        fault.refusal && attempt && attempt.shows.length > 0
          ? { kind: 'means_refused', payload: { ...paid, fault: fault.code } }
          : { kind: 'fault', payload: { code: fault.code, side: fault.side } },
      )
      .then(([id = null]) => id);
    // What can hurt has a sheet of its own: nothing on it is about the charge.
    setOpen(fault.danger ? { sheet: 'danger', at } : { sheet: 'after_fault', fault, id: null, recorded, at });
    const id = await recorded;
    setOpen((now) => (now?.sheet === 'after_fault' && now.fault === fault ? { ...now, id } : now));
  };
  const pricing = usePricing(visit, facts.tariff);
  const ways = { act, open: setOpen, hands, pricing };
  const yellow = yellowPad(state, facts, ways);
  const second = secondPad(state, facts, ways);
  useShutter((t) => {
    if (takesTouch(hands.rest, t) && open === null) yellow.press(t);
  });

  const undoable = state.undoable.at(-1);
  const sentence = over ? null : oneSentence(visit, facts);

  const may = mayRecord(state.who.role);
  return (
    <div className={SHAPE}>
      <div className="lg:col-span-2">
        <header className="flex items-center gap-3 bg-asphalt px-4 py-2.5 text-line short:py-1.5">
          <Milestone text={stall?.fields.name ?? '?'} />
          <div className="min-w-0 grow">
            <h1 className="truncate text-lg">{site?.fields.name ?? (visit.siteId === null ? 'Somewhere new' : 'Unknown site')}</h1>
            <p className="line-clamp-2 text-[13.5px] leading-snug text-line-2">
              {[state.observing ? 'observing' : null, network?.fields.name, stall ? plateText(stall.fields) : null].filter(Boolean).join(', ')}
              <PriceHere visit={visit} facts={facts} />
            </p>
          </div>
          <KeptCorner outbox={state.outbox} signedOut={state.signedOut} hands={hands} />
        </header>
        <TrialStrip state={state} visit={visit} act={act} />
        <LiveStrip state={state} facts={facts} hands={hands} act={act} onOpen={setOpen} />
      </div>
      <main className="flex min-h-0 grow flex-col overflow-y-auto" aria-label="The visit so far">
        <div key={state.touches} className={state.touches > 0 ? 'flash' : ''} aria-hidden="true" />
        {over ? (
          <VisitOver
            visit={visit}
            noHelpline={
              may && facts.helpline === null && network && visit.line.some((e) => e.kind === 'help_called' || isDanger(e)) ? network.fields.name : null
            }
            unnamed={may && visit.siteId === null && !state.observing}
            onName={(at) => setOpen({ sheet: 'place', at })}
            onLeave={() => void hands.leaveVisit()}
            onRate={(at) => setOpen({ sheet: 'rating', at })}
            onHelpline={(at) => setOpen({ sheet: 'helpline', at })}
          />
        ) : charging ? (
          <>
            <AdviceLine state={state} facts={facts} onOpen={setOpen} />
            <ChargingBoard attempt={charging} tape={visit.tape} ratedKW={facts.ratedKW} now={phoneNow} />
          </>
        ) : null}
        {over ? null : <CostLine visit={visit} facts={facts} />}
        {board && sentence ? <p className="border-b border-rule bg-card px-4 py-1 text-[14px] font-semibold">{sentence}</p> : null}
        <div ref={body} data-tape className={over ? 'relative' : 'relative min-h-[120px] grow overflow-y-auto'}>
          <div className="relative min-h-full">
            <div className="absolute inset-y-0 left-0 w-[74px] bg-asphalt" aria-hidden="true" />
            <UprightTape marks={marks} tape={visit.tape} zone={visit.zone} running={runningPaint(visit)} onMark={onMark} />
            {board ? null : (
              <div className="relative pl-[74px]">
                <div className="px-3 pb-3 pt-1">
                  <RunningClock {...clockOf(visit)} now={phoneNow} />
                  {sentence ? <p className="text-[14px] leading-snug text-ink-2">{sentence}</p> : null}
                </div>
              </div>
            )}
          </div>
        </div>
      </main>
      <div
        className="grid grid-cols-2 shrink-0 content-start gap-2.5 border-t-2 border-ink bg-card px-3.5 pb-[max(14px,env(safe-area-inset-bottom))] pt-3 short:gap-2 short:pb-[max(8px,env(safe-area-inset-bottom))] short:pt-2 flat:col-start-2 flat:row-span-2 flat:row-start-1 flat:overflow-y-auto flat:border-l-2 flat:border-t-0 lg:border-l-2 lg:border-t-0"
        data-resting={hands.rest.now}
      >
        <Pad
          tone="next"
          className="col-span-2 !h-[88px] text-[24px] font-extrabold short:!h-[72px] short:text-[21px]"
          hint={yellow.hint}
          onPress={yellow.press}
          rest={hands.rest}
        >
          {yellow.text}
        </Pad>
        <Pad hint={second.hint} onPress={second.press} rest={hands.rest} unavailable={over && facts.next === 'done'}>
          {second.text}
        </Pad>
        <Pad tone="bad" hint={FAULT_HINTS[facts.phase]} onPress={(t) => setOpen({ sheet: 'fault', at: t })} rest={hands.rest}>
          Fault
        </Pad>
        <div className="col-span-2 grid grid-cols-3 gap-2.5 short:gap-2">
          <Pad className="max-[340px]:text-[15px]" onPress={(t) => setOpen({ sheet: 'change', at: t })} rest={hands.rest}>
            Something changed
          </Pad>
          <Pad hint={undoable ? undoLabel(undoable, visit) : 'nothing'} onPress={(t) => void hands.undo(t)} rest={hands.rest} unavailable={!undoable}>
            Undo
          </Pad>
          <Pad onPress={(t) => setOpen({ sheet: 'more', at: t })} rest={hands.rest}>
            More
          </Pad>
        </div>
      </div>
      {open ? (
        <LiveSheets
          open={open}
          setOpen={setOpen}
          state={state}
          facts={facts}
          pricing={pricing}
          hands={hands}
          act={act}
          onFault={(f, at) => void onFault(f, at)}
        />
      ) : null}
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
