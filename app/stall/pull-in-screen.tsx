'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { lastCar, rememberPullIn } from '@/client/store/habits';
import type { LastVisit } from '@/client/store/last-visits';
import { unfinished } from '@/core/records/enrolment-steps';
import type { Position } from '@/core/records/place-questions';
import { mayLookOn, mayRecord, refusedTo } from '@/core/records/roles';
import { plateText } from '@/core/records/stall-plate';
import { printCount } from '@/core/units/print';
import { codeDigits, printCode, wholeCode } from '@/core/visit/visit-code';
import { Pad } from '@/ui/pads/pad';
import { mayAskWhere, whereIAm } from '@/ui/places/where-i-am';
import { Milestone } from '@/ui/road/milestone';
import { PLACES } from '@/ui/road/places';
import { ThumbBar } from '@/ui/road/thumb-bar';
import { usePlaceKeys } from '@/ui/road/use-place-keys';
import { later } from '../later';
import { ElsewhereLine } from './elsewhere-line';
import { KeptCorner } from './kept-corner';
import { SiteChoice } from './site-choice';
import { laterParts } from './stall-parts';
import type { StallHands, StallState } from './stall-state';
import type { TrialStep } from './trial-card';
import { useFollow } from './use-follow';

const AddPlaceSheet = later(async () => (await (await laterParts()).recordSheets()).AddPlaceSheet);
const StallChoice = later(async () => (await laterParts()).StallChoice, <div className="h-[320px]" />);
const FindOnPhone = later(async () => (await laterParts()).FindOnPhone);
const OneOf = later(async () => (await laterParts()).OneOf, <div className="h-[44px]" />);
const OpenVisits = later(async () => (await laterParts()).OpenVisits);
const LastVisits = later(async () => (await laterParts()).LastVisits);
const TrialCard = later(async () => (await laterParts()).TrialCard);
const EnrolmentSheet = later(async () => (await (await laterParts()).recordSheets()).EnrolmentSheet);
const GarageSheet = later(async () => (await (await laterParts()).recordSheets()).GarageSheet);

const JoinByCodeSheet = later(async () => (await (await laterParts()).recordSheets()).JoinByCodeSheet);

const asked = (what: 'site' | 'stall' | 'join') => new URLSearchParams(location.search).get(what);
/** What the address asked for is done: read anew it must not be asked again. */
const forgetAsked = () => history.replaceState(null, '', location.pathname);
const NONE_HERE = {
  asking: 'Fetching your places …',
  unreached: 'Your places are not on this phone yet',
  known: 'No sites yet',
} as const;
const noMoreKeys = () => false;
const NO_VISITS: LastVisit[] = [];

/** Before a visit: choose the site, the stall if it is known yet, and the car; then the one yellow pad. */
export function PullInScreen({ state, hands }: { state: Extract<StallState, { is: 'ready' }>; hands: StallHands }) {
  const { records } = state;
  const may = mayRecord(state.who.role);
  const [siteId, setSiteId] = useState<string | null>(() => asked('site'));
  const [stallId, setStallId] = useState<string | null>(() => asked('stall'));
  /** The code of the visit that another phone records, of which the next one here is a recording too. */
  const [joins, setJoins] = useState<string | null>(() => wholeCode(asked('join') ?? ''));
  /** The step of a trial that the next visit runs. */
  const [step, setStep] = useState<TrialStep | null>(null);
  const [carId, setCarId] = useState<string | null>(lastCar);
  const [sheet, setSheet] = useState<'place' | 'car' | 'garage' | 'enrolments' | 'find' | 'join' | null>(null);
  const networkName = (id: string) => records.network.find((n) => n.id === id)?.fields.name ?? '';
  const site = records.site.find((s) => s.id === siteId);
  const stall = records.stall.find((s) => s.id === stallId && s.fields.siteId === siteId);
  const car = records.car.find((c) => c.id === carId) ?? records.car[0];

  const [visits, setVisits] = useState<LastVisit[]>([]);
  // What the phone had at hand gives the order of the sites: an answer that comes later moves nothing under the finger.
  const [atHand, setAtHand] = useState<LastVisit[] | null>(null);
  const { lastVisits } = hands;
  const look = useCallback(
    () =>
      lastVisits((rows) => {
        setVisits(rows);
        // A fresh phone has none at hand: the first that come give the order.
        setAtHand((before) => before ?? (rows.length > 0 ? rows : null));
      }),
    [lastVisits],
  );
  useEffect(() => {
    void look().catch(() => {});
  }, [look]);
  // A visit that begins on another phone offers itself.
  useFollow(look);
  // Asked for only where it was allowed before: nobody answers questions with a cable in the hand.
  const here = useRef<Position | null>(null);
  useEffect(() => {
    void (async () => {
      if (!(await mayAskWhere())) return;
      const { latitude, longitude } = await whereIAm();
      // Five decimals are a metre.
      here.current = { latitude: Number(latitude.toFixed(5)), longitude: Number(longitude.toFixed(5)) };
    })().catch(() => {});
  }, []);
  // Where the other phone's recording is known already, this one looks on at it at once.
  const tried = useRef(new Set<string>());
  useEffect(() => {
    const there = joins === null ? undefined : visits.find((v) => codeDigits(v.id) === joins);
    if (!there || tried.current.has(there.id)) return;
    tried.current.add(there.id);
    forgetAsked();
    void hands.openVisit(there.id);
  }, [joins, visits, hands]);
  const running = visits.filter((v) => v.state === 'running' && (siteId === null || v.siteId === siteId));
  const main = useRef<HTMLElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a site chosen far down the list has its stalls at the top
  useEffect(() => {
    main.current?.scrollTo({ top: 0 });
  }, [siteId]);
  const unfinishedHere = unfinished(records.enrolment, site?.fields.networkId ?? null);

  usePlaceKeys(
    useCallback((href: string) => location.assign(href), []),
    noMoreKeys,
    useCallback(() => setSheet('find'), []),
  );

  // Gone on to another site or stall, the next visit is no round of it.
  const stepHere = step && (step.siteId === null || step.siteId === site?.id) && (step.stallId === null || step.stallId === stall?.id) ? step : null;
  const pullIn = (timeStamp: number) => {
    rememberPullIn(site?.id, car?.id);
    forgetAsked();
    // Somewhere new: its name can wait, and where it is goes along as far as the phone knows by now.
    const place = site ? { siteId: site.id } : here.current ? { position: here.current } : {};
    void hands.act(
      timeStamp,
      { kind: 'pulled_in', payload: { ...place, ...(car ? { carId: car.id } : {}), ...(joins ? { joins } : {}) } },
      ...(stall ? [{ kind: 'stall_chosen' as const, payload: { stallId: stall.id } }] : []),
      ...(stepHere ? [{ kind: 'trial_round' as const, payload: { trialId: stepHere.trialId, round: stepHere.round, side: stepHere.side } }] : []),
    );
  };

  return (
    <div className="mx-auto flex h-dvh max-w-[1280px] flex-col lg:grid lg:grid-cols-[minmax(0,1fr)_420px] lg:grid-rows-[auto_minmax(0,1fr)]">
      <header className="flex items-center gap-3 bg-asphalt px-4 py-3 text-line lg:col-span-2">
        <Milestone text={stall?.fields.name ?? '?'} />
        <div className="min-w-0">
          <h1 className="truncate text-lg">{site?.fields.name ?? 'Where are you?'}</h1>
          <p className="line-clamp-2 text-[13.5px] text-line-2 wrap-anywhere">
            {site ? `${networkName(site.fields.networkId)}${stall ? `, ${plateText(stall.fields)}` : ''}` : 'Choose the site, then the stall'}
          </p>
        </div>
        <nav aria-label="Places" className="ml-auto hidden gap-5 sm:flex">
          {PLACES.filter((p) => !p.shell).map((p) => (
            <a key={p.href} href={p.href} className="flex items-baseline gap-1.5 py-1.5 text-sm font-semibold text-line-2" aria-keyshortcuts={p.key}>
              {p.name}
              <span className="num text-[10px]" aria-hidden="true">
                {p.key}
              </span>
            </a>
          ))}
        </nav>
        <KeptCorner outbox={state.outbox} signedOut={state.signedOut} hands={hands} />
      </header>
      <main ref={main} className="min-h-0 grow overflow-y-auto px-4 py-3">
        {state.cannotKeep ? (
          <p role="alert" className="mb-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-[14px]">
            <b>This phone cannot keep what you record: {state.cannotKeep}.</b> A visit goes on in this page’s memory and is sent from here: do not close it
            while anything waits.
          </p>
        ) : null}
        <ElsewhereLine householdId={state.who.householdId} personId={state.who.personId} />
        {may && records.trial.length > 0 ? (
          <TrialCard
            records={records}
            steps={state.trialSteps}
            chosen={stepHere}
            onChoose={(s) => {
              setStep(s);
              if (s?.siteId) setSiteId(s.siteId);
              if (s?.stallId) setStallId(s.stallId);
            }}
          />
        ) : null}
        {records.site.length === 0 ? (
          <div className="py-4">
            <h2 className="text-lg">{NONE_HERE[state.places]}</h2>
            <p className="mt-1 text-sm text-ink-2">
              {state.places === 'unreached' ? 'They come once there is a network. ' : ''}Pull in now: the name, the network, the stall and its plate can be
              added while it charges or at home, and all works meanwhile.
            </p>
          </div>
        ) : null}
        {site ? (
          <section aria-label={`Stalls at ${site.fields.name}`}>
            <div className="flex items-baseline gap-3">
              <h2 className="text-[15px]">Stall</h2>
              <button
                type="button"
                className="min-h-[44px] px-1 text-sm font-semibold text-shake underline"
                onClick={() => {
                  setSiteId(null);
                  setStallId(null);
                }}
              >
                Another site
              </button>
            </div>
            <StallChoice
              state={state}
              siteId={site.id}
              stallId={stallId}
              carId={car?.id ?? null}
              hands={hands}
              onStall={setStallId}
              onAdd={() => setSheet('place')}
            />
          </section>
        ) : (
          <SiteChoice
            records={records}
            empty={state.places === 'known' && records.site.length === 0}
            distance={state.who.wishes.distance}
            visits={atHand ?? NO_VISITS}
            onSite={setSiteId}
            onAdd={() => setSheet('place')}
          />
        )}
        <section aria-label="Car" className="mt-5">
          <h2 className="text-[15px]">Car</h2>
          <OneOf
            label="Car"
            headed={false}
            value={car?.id ?? null}
            choices={records.car.map((c) => [c.id, c.fields.name] as const)}
            onChoose={setCarId}
            row="mt-2 flex flex-wrap gap-2"
          >
            {joins ? (
              <p className="mb-2 flex items-center gap-3 text-[14px]">
                <span className="grow">One visit with {printCode(joins)}, recorded on another phone.</span>
                <button type="button" className="plate !min-h-[44px]" onClick={() => setJoins(null)}>
                  It stands alone
                </button>
              </p>
            ) : null}
            {may ? (
              <>
                <button type="button" className="plate !min-h-[44px]" onClick={() => setSheet('car')}>
                  Add a car
                </button>
                <button type="button" className="plate !min-h-[44px]" onClick={() => setSheet('garage')}>
                  Garage
                </button>
              </>
            ) : null}
            {may && unfinishedHere.length > 0 ? (
              <button type="button" className="plate !min-h-[44px]" onClick={() => setSheet('enrolments')}>
                {printCount(unfinishedHere.length, 'enrolment')} to finish
              </button>
            ) : null}
          </OneOf>
        </section>
        {mayLookOn(state.who.role) && joins === null ? (
          <button type="button" className="mt-4 min-h-[44px] px-1 text-sm font-semibold text-shake underline" onClick={() => setSheet('join')}>
            Join by code
          </button>
        ) : null}
        {site ? null : <LastVisits visits={visits.filter((v) => v.state !== 'running')} records={records} hands={hands} />}
        <p className="mt-5 text-sm text-ink-2">Nothing is tapped at the wheel: stop first. The time of arrival can be set back by minutes afterwards.</p>
      </main>
      <div className="border-t-2 border-ink bg-card px-3.5 pb-3 pt-3 lg:border-l-2 lg:border-t-0">
        {running.length > 0 && mayLookOn(state.who.role) ? (
          <div className="mb-2.5">
            <OpenVisits visits={running} records={records} hands={hands} />
          </div>
        ) : null}
        {state.goesOn ? (
          <p className="mb-2 flex items-center gap-3 text-[14px]">
            <span className="grow">One stop with the visit before.</span>
            <button type="button" className="plate !min-h-[44px]" onClick={() => void hands.linkNextVisit(null)}>
              It stands alone
            </button>
          </p>
        ) : null}
        {may ? (
          <Pad
            tone="next"
            className="min-h-[84px] w-full text-[24px] font-extrabold"
            onPress={pullIn}
            rest={hands.rest}
            hint={site ? (stall ? `${site.fields.name}, stall ${stall.fields.name}` : site.fields.name) : 'somewhere new: its name can wait'}
          >
            Pulled in
          </Pad>
        ) : (
          <p role="status" className="min-h-[60px] text-[15px]">
            {refusedTo(state.who.role)}.
          </p>
        )}
      </div>
      <ThumbBar here="/stall" />
      {sheet === 'place' ? (
        <AddPlaceSheet
          records={records}
          site={site ?? null}
          currency={state.who.currency}
          onClose={() => setSheet(null)}
          onAdd={async (items, ids) => {
            await hands.addRecords(items);
            setSiteId(ids.siteId);
            setStallId(ids.stallId);
            setSheet(null);
          }}
        />
      ) : null}
      {sheet === 'enrolments' ? (
        <EnrolmentSheet
          records={records}
          networkId={site?.fields.networkId ?? null}
          zone={site?.fields.zone ?? state.who.zone}
          onClose={() => setSheet(null)}
          onSave={hands.addRecords}
        />
      ) : null}
      {sheet === 'join' ? (
        <JoinByCodeSheet
          onClose={() => setSheet(null)}
          onCode={(code) => {
            setJoins(code);
            setSheet(null);
          }}
        />
      ) : null}
      {sheet === 'find' ? (
        <FindOnPhone
          records={records}
          onClose={() => setSheet(null)}
          onPlace={(site, stall) => {
            setSiteId(site);
            setStallId(stall);
            setSheet(null);
          }}
        />
      ) : null}
      {sheet === 'car' || sheet === 'garage' ? (
        <GarageSheet
          state={state}
          {...(sheet === 'car' ? { start: 'car' as const } : {})}
          onClose={() => setSheet(null)}
          onSave={async (items) => {
            await hands.addRecords(items);
            const added = items.find((i) => i.type === 'car');
            if (added) setCarId(added.id);
            if (sheet === 'car') setSheet(null);
          }}
        />
      ) : null}
    </div>
  );
}
