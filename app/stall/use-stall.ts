'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { v7 } from 'uuid';
import { type OutboxStatus, startOutbox } from '@/client/outbox/outbox-loop';
import { refusedEvents, sendRefusedAgain } from '@/client/outbox/refused-events';
import { letNewVersionIn } from '@/client/register-service-worker';
import { type EventDraft, eventsOfVisit, keepEvents } from '@/client/store/keep-event';
import { keepRecords, pullChanges } from '@/client/store/keep-record';
import { type KeptEvent, openPhoneStore, type PhoneStore } from '@/client/store/phone-store';
import { askWho, type PhoneWho, readWho } from '@/client/store/who';
import { touchTime } from '@/client/touch/touch-time';
import type { MileRecord, RecordItem, RecordType } from '@/core/records/record-schema';
import { deriveVisit, type Visit } from '@/core/visit/derive';
import type { Kind, PayloadCheck } from '@/core/visit/kinds';
import type { Payload } from '@/core/visit/payloads';

export type Records = { [T in RecordType]: Extract<MileRecord, { type: T }>[] };
export type Draft<K extends Kind = Kind> = { [P in K]: { kind: P; payload: Payload<P> } }[K];

export type StallState =
  | { is: 'opening' }
  | { is: 'nobody' }
  | { is: 'no_store'; why: string }
  | {
      is: 'ready';
      who: PhoneWho;
      signedOut: boolean;
      records: Records;
      visitId: string | null;
      visit: Visit | null;
      kept: KeptEvent[];
      outbox: OutboxStatus | null;
    };

export type StallHands = {
  /** Records events at the touch. Starts a visit when none is open. @returns once they are kept */
  act: (timeStamp: number, ...drafts: Draft[]) => Promise<void>;
  /** Takes back this device's last event; the visit with its first. */
  undo: (timeStamp: number) => Promise<void>;
  /** What undo would take back. */
  undoable: KeptEvent | null;
  addRecords: (items: RecordItem[]) => Promise<void>;
  /** What the server refused, of every visit. */
  refused: () => Promise<KeptEvent[]>;
  sendRefusedAgain: () => Promise<void>;
  /** Leaves the finished visit; it stays in the ledger. */
  leaveVisit: () => Promise<void>;
  /** For 700 ms after a tap the pads take no touch. */
  resting: boolean;
  /** Grows with each event kept: the page flashes. */
  flash: number;
};

const NO_RECORDS: Records = { network: [], site: [], stall: [], car: [], means: [], tariff: [] };
const REST_MS = 700;
const notChecked: PayloadCheck = () => ({ path: '', reason: 'not checked yet' });

/** The live visit on this phone: its store, its outbox, and what can be done. */
export function useStall(): { state: StallState; hands: StallHands } {
  const [who, setWho] = useState<PhoneWho | null | 'asking'>('asking');
  const [signedOut, setSignedOut] = useState(false);
  const [store, setStore] = useState<PhoneStore | null>(null);
  const [broken, setBroken] = useState<string | null>(null);
  const [records, setRecords] = useState<Records>(NO_RECORDS);
  const [visitId, setVisitId] = useState<string | null>(null);
  const [kept, setKept] = useState<KeptEvent[]>([]);
  const [outbox, setOutbox] = useState<OutboxStatus | null>(null);
  const [loaded, setLoaded] = useState(false);
  const [resting, setResting] = useState(false);
  const [flash, setFlash] = useState(0);
  const [check, setCheck] = useState<PayloadCheck>(() => notChecked);
  const loop = useRef<ReturnType<typeof startOutbox> | null>(null);
  const visitRef = useRef<string | null>(null);
  visitRef.current = visitId;

  // Who: at once from the phone, then as the server says.
  useEffect(() => {
    const here = readWho();
    if (here) setWho(here);
    void askWho().then((answer) => {
      if (answer === 'signed_out') {
        setSignedOut(true);
        if (!here) setWho(null);
      } else if (answer === 'unreachable') {
        if (!here) setWho(null);
      } else
        setWho((before) => (before !== 'asking' && before?.personId === answer.personId && before.clockOffsetMs === answer.clockOffsetMs ? before : answer));
    });
  }, []);

  const householdId = who === 'asking' ? undefined : who?.householdId;
  const personId = who === 'asking' ? undefined : who?.personId;
  useEffect(() => {
    if (!householdId || !personId) return;
    setLoaded(false);
    let gone = false;
    let opened: PhoneStore | null = null;
    const readRecords = async (s: PhoneStore) => {
      const all = await s.getAll('record');
      if (gone) return;
      const next: Records = { network: [], site: [], stall: [], car: [], means: [], tariff: [] };
      for (const r of all) if (!r.archived) (next[r.type] as MileRecord[]).push(r);
      setRecords(next);
    };
    void (async () => {
      try {
        opened = await openPhoneStore(householdId, personId);
        if (gone) return opened.close();
        setStore(opened);
        await readRecords(opened);
        const open = ((await opened.get('meta', 'openVisit')) as string | undefined) ?? null;
        setVisitId(open);
        if (open) setKept(await eventsOfVisit(opened, open));
        setLoaded(true);
        const s = opened;
        loop.current = startOutbox(s, (status) => {
          setOutbox(status);
          if (status.last === 'signed_out') setSignedOut(true);
          const id = visitRef.current;
          if (id)
            void eventsOfVisit(s, id).then((events) => {
              if (!gone && visitRef.current === id) setKept(events);
            });
        });
        if (await pullChanges(s)) await readRecords(s);
        if (!open) await letNewVersionIn();
      } catch (error) {
        setBroken(error instanceof Error ? error.message : String(error));
      }
    })();
    return () => {
      gone = true;
      loop.current?.stop();
      opened?.close();
    };
  }, [householdId, personId]);

  // The schemas are fetched only for a visit some figure of which was corrected, elsewhere or on its page.
  const corrected = kept.some((k) => k.event.kind === 'correction' && k.event.payload.set !== undefined);
  useEffect(() => {
    if (corrected)
      void import('@/core/visit/payloads').then(
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
  const ready = useMemo(() => (store && who !== 'asking' && who ? { store, who } : null), [store, who]);

  const rest = useCallback(() => {
    setResting(true);
    setTimeout(() => setResting(false), REST_MS);
  }, []);

  const act = useCallback(
    async (timeStamp: number, ...drafts: Draft[]) => {
      if (!ready || drafts.length === 0) return;
      const touch = touchTime(timeStamp);
      rest();
      const id = visitId ?? v7();
      const siteId = drafts.find((d) => d.kind === 'pulled_in')?.payload.siteId ?? visit?.siteId;
      const zone = records.site.find((s) => s.id === siteId)?.fields.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
      await keepEvents(
        ready.store,
        ready.who,
        drafts.map((d): EventDraft => ({ visitId: id, kind: d.kind, payload: d.payload, zone, touch })),
        visitId === null,
      );
      // The corner never says "all sent" of what was kept just now.
      const waiting = await ready.store.count('outbox');
      setOutbox((before) => ({ refused: before?.refused ?? 0, last: before?.last ?? null, waiting }));
      navigator.vibrate?.(30);
      setVisitId(id);
      setKept(await eventsOfVisit(ready.store, id));
      setFlash((n) => n + 1);
      void loop.current?.wake();
    },
    [ready, visitId, visit?.siteId, records.site, rest],
  );

  const undoable = useMemo(() => lastToUndo(kept), [kept]);
  const leaveVisit = useCallback(async () => {
    if (!ready) return;
    await ready.store.delete('meta', 'openVisit');
    setVisitId(null);
    setKept([]);
    await letNewVersionIn();
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

  const addRecords = useCallback(
    async (items: RecordItem[]) => {
      if (!ready) return;
      await keepRecords(ready.store, items);
      setRecords((before) => {
        const next = { ...before };
        for (const i of items)
          (next as Record<string, MileRecord[]>)[i.type] = [
            ...before[i.type],
            { type: i.type, id: i.id, rev: i.baseRev, archived: false, fields: i.fields } as MileRecord,
          ];
        return next;
      });
      void loop.current?.wake();
    },
    [ready],
  );

  const refused = useCallback(async () => (ready ? refusedEvents(ready.store) : []), [ready]);
  const sendAgain = useCallback(async () => {
    if (!ready) return;
    await sendRefusedAgain(ready.store);
    void loop.current?.wake();
  }, [ready]);

  let state: StallState;
  if (broken) state = { is: 'no_store', why: broken };
  else if (who === null) state = { is: 'nobody' };
  else if (who === 'asking' || !store || !loaded) state = { is: 'opening' };
  else state = { is: 'ready', who, signedOut, records, visitId, visit, kept, outbox };
  return { state, hands: { act, undo, undoable, addRecords, refused, sendRefusedAgain: sendAgain, leaveVisit, resting, flash } };
}

/** This phone's last event that still stands and is not itself a taking back. */
function lastToUndo(kept: readonly KeptEvent[]): KeptEvent | null {
  const takenBack = new Set(kept.filter((k) => k.event.kind === 'withdrawal').map((k) => k.event.payload.target));
  const standing = kept.filter((k) => k.event.kind !== 'withdrawal' && !takenBack.has(k.event.id));
  return standing.sort((a, b) => b.event.seq - a.event.seq)[0] ?? null;
}
