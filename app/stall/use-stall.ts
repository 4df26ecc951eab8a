'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { v7 } from 'uuid';
import { type OutboxStatus, startOutbox, waitingHere } from '@/client/outbox/outbox-loop';
import { refusedEvents, sendMended, sendRefusedAgain } from '@/client/outbox/refused-events';
import { sendRecords } from '@/client/outbox/send-outbox';
import { writePhoto } from '@/client/photos/photo-outbox';
import { letNewVersionIn } from '@/client/register-service-worker';
import { changesSince } from '@/client/store/changes-from-server';
import { holdEvents, refusedOf } from '@/client/store/held-events';
import { type EventDraft, eventsOfVisit, keepFromServer, keepMade } from '@/client/store/keep-event';
import { keepRecords, pullChanges } from '@/client/store/keep-record';
import { type KeptEvent, openPhoneStore, type PhoneStore } from '@/client/store/phone-store';
import { byType, noRecords, type Records } from '@/client/store/records-by-type';
import { takeAwake } from '@/client/touch/page-life';
import { touchTime } from '@/client/touch/touch-time';
import { lastVisits, visitEvents } from '@/client/visits/from-server';
import type { LedgerRow } from '@/core/compare/ledger-row';
import type { Usual } from '@/core/compare/usual-handshake';
import type { Lately } from '@/core/power/compatible-stalls';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { deriveVisit } from '@/core/visit/derive';
import type { PayloadCheck } from '@/core/visit/kinds';
import { noRest } from '@/ui/pads/rest';
import { fetchedLater } from './fetched-later';
import type { Draft, StallHands, StallState } from './stall-state';
import { useFollow } from './use-follow';
import { useWho } from './use-who';
import { lastToUndo, looksOn, nextVisitId, readVisit, takeNextVisitId } from './visit-here';

const REST_MS = 700;
const payloadsPart = fetchedLater(() => import('@/core/visit/payloads'));
const lastVisitsPart = fetchedLater(() => import('@/client/store/last-visits'));
const photoPart = fetchedLater(() => import('@/client/photos/take-photo'));
const notChecked: PayloadCheck = () => ({ path: '', reason: 'not checked yet' });
// Of the page, not of what is drawn on it: drawn anew after an error, it still holds what was recorded.
const held = holdEvents();
const reasonOf = (error: unknown) =>
  error instanceof DOMException && error.name === 'QuotaExceededError' ? 'its storage is full' : error instanceof Error ? error.message : String(error);

/** The live visit on this phone: its store, its outbox, and what can be done. */
export function useStall(): { state: StallState; hands: StallHands } {
  const { who, signedOut, setSignedOut } = useWho();
  const [store, setStore] = useState<PhoneStore | null>(null);
  const [cannotKeep, setCannotKeep] = useState<string | null>(null);
  const [records, setRecords] = useState<Records>(noRecords);
  const [lately, setLately] = useState<Lately>({});
  const [usual, setUsual] = useState<Usual>({});
  const [visitId, setVisitId] = useState<string | null>(null);
  const [kept, setKept] = useState<KeptEvent[]>([]);
  const [outbox, setOutbox] = useState<OutboxStatus | null>(null);
  const [goesOn, setGoesOn] = useState(false);
  const [loaded, setLoaded] = useState(false);
  const [rest, setRest] = useState(noRest);
  const [flash, setFlash] = useState(0);
  const [check, setCheck] = useState<PayloadCheck>(() => notChecked);
  const loop = useRef<ReturnType<typeof startOutbox> | null>(null);
  const visitRef = useRef<string | null>(null);
  visitRef.current = visitId;

  const householdId = who === 'asking' ? undefined : who?.householdId;
  const personId = who === 'asking' ? undefined : who?.personId;
  useEffect(() => {
    if (!householdId || !personId) return;
    setLoaded(false);
    let gone = false;
    let opened: PhoneStore | null = null;
    const readRecords = async (s: PhoneStore) => {
      const all = await s.getAll('record');
      const [before, waits] = [await s.get('meta', 'lately'), await s.get('meta', 'usual')];
      if (gone) return;
      setRecords(byType(all));
      setLately((before as Lately | undefined) ?? {});
      setUsual((waits as Usual | undefined) ?? {});
    };
    const start = (s: PhoneStore | null) => {
      loop.current = startOutbox(s, held, (status) => {
        setOutbox(status);
        if (status.last === 'signed_out') setSignedOut(true);
        if (s && status.records) void readRecords(s);
        const id = visitRef.current;
        if (id)
          void readVisit(s, held, id).then((events) => {
            if (!gone && visitRef.current === id) setKept(events);
          });
      });
    };
    void (async () => {
      try {
        opened = await openPhoneStore(householdId, personId);
        if (gone) return opened.close();
        const s = opened;
        setStore(s);
        await readRecords(s);
        const open = ((await s.get('meta', 'openVisit')) as string | undefined) ?? null;
        setVisitId(open);
        setGoesOn((await nextVisitId(s)) !== null);
        if (open) setKept(await readVisit(s, held, open));
        setLoaded(true);
        start(s);
        // A copy that cannot follow the household is no reason to stop keeping.
        if (await pullChanges(s).catch((error) => setCannotKeep(reasonOf(error)))) {
          await readRecords(s);
          // After a restore more waits to be sent than before.
          void loop.current?.wake();
        }
        if (!open) await letNewVersionIn();
      } catch (error) {
        if (gone) return;
        // Nothing can be kept here: said at once, and the visit goes on in the page's memory.
        setCannotKeep(reasonOf(error));
        const answer = await changesSince(0);
        if (answer) {
          setRecords(byType(answer.records));
          setLately(answer.lately ?? {});
          setUsual(answer.usual ?? {});
        }
        setLoaded(true);
        start(null);
      }
    })();
    return () => {
      gone = true;
      loop.current?.stop();
      opened?.close();
    };
  }, [householdId, personId, setSignedOut]);

  // What lives only as long as the page is asked about before the page goes.
  const inMemory = outbox?.inMemory ?? 0;
  useEffect(() => {
    if (inMemory === 0) return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [inMemory]);

  useFollow(store, visitId, kept.length, async () => {
    if (visitId && visitRef.current === visitId) setKept(await readVisit(store, held, visitId));
  });

  // The schemas are fetched only for a visit some figure of which was corrected.
  const corrected = kept.some((k) => k.event.kind === 'correction' && k.event.payload.set !== undefined);
  useEffect(() => {
    if (corrected)
      void payloadsPart().then(
        (m) => setCheck(() => m.payloadProblem),
        () => {},
      );
  }, [corrected]);
  const visit = useMemo(
    () =>
      visitId
        ? deriveVisit(
            visitId,
            kept.map((k) => k.event),
            check,
          )
        : null,
    [visitId, kept, check],
  );
  const ready = useMemo(() => (loaded && who !== 'asking' && who ? { store, who } : null), [loaded, store, who]);
  const observing = useMemo(() => looksOn(kept), [kept]);

  const startRest = useCallback(() => {
    const until = performance.now() + REST_MS;
    setRest({ now: true, until });
    setTimeout(() => setRest((r) => (r.until === until ? { ...r, now: false } : r)), REST_MS);
  }, []);

  const act = useCallback(
    async (timeStamp: number, ...drafts: Draft[]): Promise<string[]> => {
      if (!ready || drafts.length === 0) return [];
      const touch = touchTime(timeStamp);
      startRest();
      const s = ready.store;
      const id = visitId ?? (s ? await takeNextVisitId(s) : null) ?? v7();
      setGoesOn(false);
      const siteId = drafts.find((d) => d.kind === 'pulled_in')?.payload.siteId ?? visit?.siteId;
      const zone = records.site.find((x) => x.id === siteId)?.fields.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
      const role = observing ? ('observer' as const) : ('recorder' as const);
      const awake = takeAwake();
      const made = drafts.map((d): EventDraft => ({ visitId: id, kind: d.kind, payload: d.payload, zone, touch, role }));
      let ids: string[];
      try {
        if (!s) throw new Error('nothing can be kept here');
        // What an earlier failure left in memory goes first, so that the order stays.
        await held.writeDown(s);
        ids = (await keepMade(s, { who: ready.who, awake }, made, visitId === null)).map((e) => e.id);
        setCannotKeep(null);
        navigator.vibrate?.(30);
      } catch (error) {
        // Reading mostly works where writing does not: no two events share a place in the order.
        const known = s ? await eventsOfVisit(s, id).catch(() => kept) : kept;
        ids = held.add(ready.who, awake, made, known).map((e) => e.id);
        if (s) setCannotKeep(reasonOf(error));
        navigator.vibrate?.([30, 60, 30]);
      }
      // The corner never says "all sent" of what was kept just now.
      const waits = await waitingHere(s, held).catch(() => waitingHere(null, held));
      setOutbox((before) => ({ refused: before?.refused ?? 0, unsettled: before?.unsettled ?? 0, last: before?.last ?? null, records: false, ...waits }));
      setVisitId(id);
      setKept(await readVisit(s, held, id));
      setFlash((n) => n + 1);
      void loop.current?.wake();
      return ids;
    },
    [ready, visitId, visit?.siteId, records.site, startRest, kept, observing],
  );

  const undoable = useMemo(() => lastToUndo(kept), [kept]);
  const leaveVisit = useCallback(async () => {
    await ready?.store?.delete('meta', 'openVisit').catch(() => {});
    setVisitId(null);
    setKept([]);
    if (held.all().length + held.photos().length === 0) await letNewVersionIn();
  }, [ready]);

  const undo = useCallback(
    async (timeStamp: number) => {
      if (!undoable) return;
      // Taking back the pulling in takes back the visit: the driver is before the choice of the site again.
      const first = undoable.event.kind === 'pulled_in';
      await act(timeStamp, { kind: 'withdrawal', payload: { target: first ? undoable.event.visitId : undoable.event.id } });
      if (first) await leaveVisit();
    },
    [act, leaveVisit, undoable],
  );

  const openVisit = useCallback(
    async (id: string): Promise<string | null> => {
      const s = ready?.store ?? null;
      const events = await visitEvents(id, 0);
      if (events && s) await keepFromServer(s, events);
      else if (events) held.take(events);
      const here = await readVisit(s, held, id);
      if (!here.some((k) => k.event.kind === 'pulled_in')) return 'Only its line is on this phone. It opens once there is a network.';
      await s?.put('meta', id, 'openVisit');
      setKept(here);
      setVisitId(id);
      return null;
    },
    [ready],
  );
  const showLastVisits = useCallback<StallHands['lastVisits']>(
    async (onRows) => {
      if (!ready) return;
      const { bringAlong, pruneSent, visitsAtHand } = await lastVisitsPart();
      const now = touchTime(performance.now()).at;
      const before = ((await ready.store?.get('meta', 'lastVisits')) as LedgerRow[] | undefined) ?? [];
      onRows(await visitsAtHand(ready.store, held, before, now));
      const rows = await lastVisits();
      if (!rows) return;
      await ready.store?.put('meta', rows, 'lastVisits').catch(() => {});
      if (ready.store) await pruneSent(ready.store, rows, now).catch(() => {});
      onRows(await visitsAtHand(ready.store, held, rows, now));
      // One that could not be brought is listed, and opens when there is a network.
      if (ready.store && (await bringAlong(ready.store, rows).catch(() => false))) onRows(await visitsAtHand(ready.store, held, rows, now));
    },
    [ready],
  );

  const addRecords = useCallback(
    async (items: RecordItem[]) => {
      if (!ready) return;
      if (ready.store) await keepRecords(ready.store, items);
      else {
        const why = await sendRecords(items);
        if (why) return setCannotKeep(`places and garage could not be changed, ${why}`);
      }
      setRecords((before) => {
        const changed = new Set(items.map((i) => `${i.type} ${i.id}`));
        const others = (Object.values(before).flat() as MileRecord[]).filter((r) => !changed.has(`${r.type} ${r.id}`));
        return byType([...others, ...items.map((i) => ({ ...i, rev: i.baseRev, archived: i.archived ?? false }) as MileRecord)]);
      });
      void loop.current?.wake();
    },
    [ready],
  );

  const lookAgain = useCallback(async () => {
    await loop.current?.wake();
    if (ready?.store) setRecords(byType(await ready.store.getAll('record')));
  }, [ready]);
  const refused = useCallback(async () => [...(ready?.store ? await refusedEvents(ready.store) : []), ...refusedOf(held)], [ready]);
  const sendAgain = useCallback(async () => {
    for (const k of refusedOf(held)) held.settle(k.event.id, { state: 'kept' });
    if (ready?.store) await sendRefusedAgain(ready.store);
    void loop.current?.wake();
  }, [ready]);
  const mend = useCallback<StallHands['sendMended']>(
    async (id, mended) => {
      if (ready?.store) await sendMended(ready.store, id, mended);
      if (ready && visitRef.current) setKept(await readVisit(ready.store, held, visitRef.current));
      void loop.current?.wake();
    },
    [ready],
  );
  const keepPhoto = useCallback(
    async (file: Blob) => {
      const { takePhoto } = await photoPart();
      const photo = await takePhoto(file);
      try {
        if (!ready?.store) throw new Error('nothing can be kept here');
        await writePhoto(ready.store, photo);
      } catch (error) {
        // Like an event, it lives as long as the page and is sent from there.
        held.addPhoto(photo);
        if (ready?.store) setCannotKeep(reasonOf(error));
      }
      void loop.current?.wake();
      return photo.sha256;
    },
    [ready],
  );
  const linkNextVisit = useCallback(
    async (id: string | null) => {
      if (id === null) await ready?.store?.delete('meta', 'nextVisit');
      else await ready?.store?.put('meta', { id, at: Date.now() }, 'nextVisit');
      setGoesOn(id !== null);
    },
    [ready],
  );

  let state: StallState;
  if (who === null) state = { is: 'nobody' };
  else if (who === 'asking' || !loaded) state = { is: 'opening' };
  else state = { is: 'ready', who, signedOut, records, lately, usual, visitId, visit, kept, outbox, cannotKeep, observing, goesOn };
  const hands: StallHands = {
    act,
    undo,
    undoable,
    addRecords,
    refused,
    lookAgain,
    sendRefusedAgain: sendAgain,
    sendMended: mend,
    leaveVisit,
    openVisit,
    lastVisits: showLastVisits,
    keepPhoto,
    linkNextVisit,
    rest,
    flash,
  };
  return { state, hands };
}
