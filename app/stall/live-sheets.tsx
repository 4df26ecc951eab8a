'use client';
import { phoneNow } from '@/client/touch/touch-time';
import type { Fault } from '@/core/faults/fault-list';
import { unfinished } from '@/core/records/enrolment-steps';
import { mayRecord } from '@/core/records/roles';
import { localDay } from '@/core/units/zoned';
import { chargingSoFar } from '@/core/visit/attempt-times';
import { attemptChoices } from '@/core/visit/billed';
import { stallKWhOf } from '@/core/visit/delivered';
import { likelyFaults } from '@/core/visit/likely-faults';
import { statesSeen } from '@/core/visit/states-seen';
import { later } from '../later';
import type { Live, LiveFacts } from './live-facts';
import type { Open, Plain } from './open-sheet';
import type { Draft, StallHands } from './stall-state';
import type { Pricing } from './use-pricing';

const FaultSheet = later(() => import('./sheets/event-sheets').then((m) => m.FaultSheet));
const AfterFaultSheet = later(() => import('./sheets/event-sheets').then((m) => m.AfterFaultSheet));
const StallSheet = later(() => import('./sheets/record-sheets').then((m) => m.StallSheet));
const ReadingSheet = later(() => import('./sheets/event-sheets').then((m) => m.ReadingSheet));
const BillSheet = later(() => import('./sheets/event-sheets').then((m) => m.BillSheet));
const MoreSheet = later(() => import('./sheets/event-sheets').then((m) => m.MoreSheet));
const ChangeSheet = later(() => import('./sheets/event-sheets').then((m) => m.ChangeSheet));
const LeaveSheet = later(() => import('./sheets/event-sheets').then((m) => m.LeaveSheet));
const MarkSheet = later(() => import('./sheets/event-sheets').then((m) => m.MarkSheet));
const MeansSheet = later(() => import('./sheets/event-sheets').then((m) => m.MeansSheet));
const SurveySheet = later(() => import('./sheets/event-sheets').then((m) => m.SurveySheet));
const ArrivalSheet = later(() => import('./sheets/event-sheets').then((m) => m.ArrivalSheet));
const AdapterSheet = later(() => import('./sheets/event-sheets').then((m) => m.AdapterSheet));
const DangerSheet = later(() => import('./sheets/event-sheets').then((m) => m.DangerSheet));
const HelplineSheet = later(() => import('./sheets/record-sheets').then((m) => m.HelplineSheet));
const EnrolmentSheet = later(() => import('./sheets/record-sheets').then((m) => m.EnrolmentSheet));
const NamePlaceSheet = later(() => import('./sheets/record-sheets').then((m) => m.NamePlaceSheet));
const HelpSheet = later(() => import('./sheets/event-sheets').then((m) => m.HelpSheet));
const WordsSheet = later(() => import('./sheets/event-sheets').then((m) => m.WordsSheet));
const PriceSheet = later(() => import('./sheets/event-sheets').then((m) => m.PriceSheet));
const PricesSheet = later(() => import('./sheets/record-sheets').then((m) => m.PricesSheet));
const GoneSheet = later(() => import('./sheets/event-sheets').then((m) => m.GoneSheet));
const StuckSheet = later(() => import('./sheets/event-sheets').then((m) => m.StuckSheet));
const RatingSheet = later(() => import('./sheets/event-sheets').then((m) => m.RatingSheet));
const StaySheet = later(() => import('./sheets/event-sheets').then((m) => m.StaySheet));
const AdviceSheet = later(() => import('./advice-parts').then((m) => m.AdviceSheet));
const StopwatchSheet = later(() => import('./sheets/event-sheets').then((m) => m.StopwatchSheet));
const PhotoSheet = later(() => import('./sheets/event-sheets').then((m) => m.PhotoSheet));
const CautionsSheet = later(() => import('./sheets/event-sheets').then((m) => m.CautionsSheet));
const JoinCodeSheet = later(() => import('./sheets/event-sheets').then((m) => m.JoinCodeSheet));
const FilmClock = later(() => import('./sheets/event-sheets').then((m) => m.FilmClock));

/** Whatever sheet is open over the pads. */
export function LiveSheets({
  open,
  setOpen,
  state,
  facts,
  pricing,
  hands,
  act,
  onFault,
}: {
  open: Open;
  setOpen: (open: Open | null) => void;
  state: Live;
  facts: LiveFacts;
  pricing: Pricing | null;
  hands: StallHands;
  /** Records and closes. */
  act: (timeStamp: number, ...drafts: Draft[]) => void;
  onFault: (fault: Fault, at: number) => void;
}) {
  const { visit, records, who } = state;
  const close = () => setOpen(null);
  const go = (sheet: Plain) => setOpen({ sheet, at: performance.now() });
  const attempts = attemptChoices(visit.attempts, visit.line, (id) => records.stall.find((s) => s.id === id)?.fields.name ?? '');
  const connector = visit.line.findLast((e) => e.kind === 'stall_chosen')?.payload.connectorId ?? facts.attempt?.connectorId;
  const connectors = [...new Set((facts.stall?.fields.outlets ?? []).map((o) => o.connector))];
  const otherConnectors = connectors.length < 2 ? [] : connectors.filter((c) => c !== connector);
  const chooseConnector = (t: number, connectorId: string) => {
    if (facts.chosenId) act(t, { kind: 'stall_chosen', payload: { stallId: facts.chosenId, connectorId } });
  };
  const sheet = () => {
    switch (open.sheet) {
      case 'fault':
        return (
          <FaultSheet
            likely={likelyFaults(facts.phase, { meansKind: facts.means.meansKind, adapterOn: facts.attempt?.adapterFitted !== undefined })}
            onClose={close}
            onFault={(f) => onFault(f, open.at)}
          />
        );
      case 'after_fault':
        return (
          <AfterFaultSheet
            fault={open.fault}
            connectors={otherConnectors}
            // A refusal leaves the attempt open: there is nothing to begin anew. A slow phone has not made it out yet, and goes by the fault.
            onAgain={(t) =>
              (visit.line.some((e) => e.id === open.id) ? facts.attempt?.ended : open.fault.ends)
                ? act(t, { kind: 'first_act', payload: { what: 'again' } })
                : close()
            }
            onConnector={chooseConnector}
            onClose={close}
            onGo={go}
            onSet={(set) => {
              const at = performance.now();
              void open.recorded.then((target) => {
                if (target) void hands.act(at, { kind: 'correction', payload: { target, set } });
              });
            }}
            onPhoto={hands.keepPhoto}
          />
        );
      case 'stall':
        return (
          <StallSheet
            records={records}
            siteId={visit.siteId}
            dangers={state.dangers}
            chosen={facts.chosenId}
            currency={who.currency}
            hands={hands}
            onClose={close}
            onChoose={(id, t, connector) => act(t, { kind: 'stall_chosen', payload: { stallId: id, ...(connector ? { connectorId: connector } : {}) } })}
          />
        );
      case 'reading':
        return (
          <ReadingSheet
            attempt={facts.attempt}
            facts={{
              ratedKW: facts.ratedKW,
              usableKWh: facts.car?.fields.usableKWh ?? null,
              // Power that was seen late flowed longer than is known.
              charging_s: facts.charging && !facts.charging.proof?.late ? chargingSoFar(facts.charging, phoneNow()) : null,
            }}
            expected={(kWh, of) => (kWh === undefined || of !== facts.tariff?.currency ? null : (pricing?.screen(kWh) ?? null))}
            currency={facts.currency}
            currencies={facts.currencies}
            openedAt={open.at}
            onClose={close}
            onSave={act}
          />
        );
      case 'bill':
        return (
          <BillSheet
            currency={facts.currency}
            currencies={facts.currencies}
            attempts={attempts}
            charged={visit.attempts.filter((a) => a.proof).map((a) => a.opened.id)}
            shown={(named) => stallKWhOf(visit.attempts.filter((a) => named.includes(a.opened.id))) ?? null}
            expectedFor={(named, kWh, of) =>
              of === facts.tariff?.currency
                ? (pricing?.bill({ attempts: visit.attempts.filter((a) => named.includes(a.opened.id)).map((a) => a.n), kWh }) ?? null)
                : null
            }
            onClose={close}
            onSave={act}
            onReceipt={() => go('receipt')}
          />
        );
      case 'more':
        return (
          <MoreSheet
            means={facts.means}
            enrolments={mayRecord(who.role) && unfinished(records.enrolment, facts.network?.id ?? null).length > 0}
            prices={mayRecord(who.role) && facts.site !== undefined}
            stallId={facts.chosenId}
            connectors={otherConnectors}
            onClose={close}
            onAct={act}
            onSheet={go}
            onAnother={() => void hands.leaveVisit()}
          />
        );
      case 'change':
        return <ChangeSheet openedAt={open.at} onClose={close} onAct={act} />;
      case 'leave':
        return <LeaveSheet hands={hands} onClose={close} onAct={act} />;
      case 'means':
        return <MeansSheet records={records} onClose={close} onAct={act} />;
      case 'survey':
        return (
          <SurveySheet
            records={records}
            siteId={visit.siteId}
            openedAt={open.at}
            onClose={close}
            onAct={act}
            onStalls={(bays) => {
              const items = statesSeen(bays, records.stall, localDay(phoneNow(), visit.zone), who.name);
              if (items.length > 0 && mayRecord(who.role)) void hands.addRecords(items);
            }}
          />
        );
      case 'arrival':
        return <ArrivalSheet visit={visit} distance={who.wishes.distance} onClose={close} onAct={act} />;
      case 'adapter':
        return <AdapterSheet records={records} stall={facts.stall} car={facts.car} openedAt={open.at} onClose={close} onAct={act} />;
      case 'danger':
        return (
          <DangerSheet
            emergency={facts.emergency}
            helpline={facts.helpline}
            where={
              [facts.site?.fields.name, facts.site?.fields.entrance, facts.stall ? `stall ${facts.stall.fields.name}` : null].filter(Boolean).join(', ') ||
              (facts.position ? `${facts.position.latitude}, ${facts.position.longitude}` : 'the charging site')
            }
            onClose={close}
            onGo={go}
          />
        );
      case 'helpline':
        return facts.network ? <HelplineSheet network={facts.network} onClose={close} onSave={hands.addRecords} /> : null;
      case 'place':
        return <NamePlaceSheet state={state} hands={hands} onClose={close} />;
      case 'enrolments':
        return <EnrolmentSheet records={records} networkId={facts.network?.id ?? null} zone={visit.zone} onClose={close} onSave={hands.addRecords} />;
      case 'help':
        return <HelpSheet visit={visit} facts={facts} onClose={close} onRecord={hands.act} />;
      case 'named':
      case 'note':
        return <WordsSheet kind={open.sheet} openedAt={open.at} onClose={close} onAct={act} />;
      case 'price':
        return (
          <PriceSheet
            currency={facts.currency}
            currencies={facts.currencies}
            place={
              facts.site && mayRecord(who.role)
                ? { siteId: facts.site.id, networkId: facts.site.fields.networkId, name: facts.site.fields.name, day: facts.day }
                : null
            }
            prices={records.tariff}
            openedAt={open.at}
            onClose={close}
            onAct={act}
            onKeep={hands.addRecords}
            onPrices={() => go('prices')}
          />
        );
      case 'prices':
        return facts.site && mayRecord(who.role) ? (
          <PricesSheet
            records={records}
            site={facts.site}
            network={facts.network}
            offers={facts.offers}
            day={facts.day}
            currency={facts.currency}
            onClose={close}
            onSave={hands.addRecords}
          />
        ) : null;
      case 'gone':
        return <GoneSheet openedAt={open.at} onClose={close} onAct={act} />;
      case 'stuck':
        return <StuckSheet onClose={close} onAct={act} />;
      case 'rating':
        return <RatingSheet onClose={close} onAct={act} />;
      case 'stopwatch':
        return <StopwatchSheet openedAt={open.at} onClose={close} onAct={act} />;
      case 'receipt':
      case 'photo':
        return <PhotoSheet kind={open.sheet} openedAt={open.at} onPhoto={hands.keepPhoto} onClose={close} onAct={act} />;
      case 'cautions':
        return <CautionsSheet onClose={close} />;
      case 'stay':
        return <StaySheet clocks={facts.clocks} zone={visit.zone} onClose={close} />;
      case 'advice':
        return <AdviceSheet state={state} facts={facts} onClose={close} />;
      case 'join_code':
        return <JoinCodeSheet visit={visit} stallId={facts.chosenId} onClose={close} />;
      case 'film':
        return <FilmClock visit={visit} onClose={close} />;
      case 'mark': {
        const event = visit.line.find((e) => e.id === open.id);
        const kept = state.kept.find((k) => k.event.id === open.id);
        return event ? (
          <MarkSheet
            event={event}
            line={visit.line}
            refused={kept?.state === 'refused' ? `${kept.path ?? ''} ${kept.reason ?? 'refused'}`.trim() : null}
            records={records}
            attempts={attempts}
            siteId={visit.siteId}
            distance={who.wishes.distance}
            onClose={close}
            onAct={act}
          />
        ) : null;
      }
    }
  };
  return sheet();
}
