'use client';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { holdEvents } from '@/client/store/held-events';
import { askToLast } from '@/client/store/lasting-storage';
import { phoneNow } from '@/client/touch/touch-time';
import { fetchedLater } from '@/client/visit-session/fetched-later';
import type { VisitSession } from '@/client/visit-session/session';
import { visitSession } from '@/client/visit-session/session';
import type { Draft } from '@/client/visit-session/session-state';
import { phoneWays, type SessionParts } from '@/client/visit-session/session-ways';
import { noRest } from '@/ui/pads/rest';
import { laterParts } from './stall-parts';
import type { StallHands, StallState } from './stall-state';
import { useFollow } from './use-follow';
import { useWho } from './use-who';

/** What a session fetches apart: nothing is derived, checked or remembered before a store is open. */
const payloads = fetchedLater(async () => (await laterParts()).payloads());
const photos = fetchedLater(async () => (await laterParts()).photos());
const sessionParts: SessionParts = {
  derivation: async () => (await laterParts()).deriveVisit,
  payloadCheck: async () => (await payloads()).payloadProblem,
  lastVisitsPart: fetchedLater(async () => (await laterParts()).lastVisitsOnPhone()),
  takePhoto: async (file: Blob) => (await photos()).takePhoto(file),
};
const REST_MS = 700;
// Of the page, not of what is drawn on it: drawn anew after an error, it still holds what was recorded.
const held = holdEvents();
const nothing = () => () => {};

/** The live visit on this phone: its session, drawn. */
export function useStall(): { state: Exclude<StallState, { is: 'ready' }>; hands: null } | { state: Extract<StallState, { is: 'ready' }>; hands: StallHands } {
  const { who, signedOut, setSignedOut } = useWho();
  const [session, setSession] = useState<VisitSession | null>(null);
  const [failed, setFailed] = useState<unknown>(null);
  const [rest, setRest] = useState(noRest);
  const now = useSyncExternalStore(
    session?.subscribe ?? nothing,
    () => session?.state() ?? null,
    () => null,
  );

  const person = who === 'asking' ? null : who;
  // biome-ignore lint/correctness/useExhaustiveDependencies: one session a person, whatever else is learnt of them
  useEffect(() => {
    if (!person) return;
    const begun = visitSession(person, held, { ...phoneWays, ...sessionParts, signedOut: () => setSignedOut(true) });
    setSession(begun);
    begun.open().catch(setFailed);
    void askToLast(phoneNow());
    return () => begun.close();
  }, [person?.householdId, person?.personId]);

  // What lives only as long as the page is asked about before the page goes.
  const inMemory = now?.outbox?.inMemory ?? 0;
  useEffect(() => {
    if (inMemory === 0) return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [inMemory]);
  useFollow(session && now?.visitId ? session.look : null);

  const hands = useMemo((): Omit<StallHands, 'rest'> | null => {
    if (!session) return null;
    const startRest = () => {
      const until = performance.now() + REST_MS;
      setRest({ now: true, until });
      setTimeout(() => setRest((r) => (r.until === until ? { ...r, now: false } : r)), REST_MS);
    };
    return {
      ...session,
      act: (timeStamp: number, ...drafts: Draft[]) => {
        if (drafts.length > 0) startRest();
        return session.act(timeStamp, ...drafts);
      },
      undo: (timeStamp: number) => {
        startRest();
        return session.undo(timeStamp);
      },
    };
  }, [session]);

  // A part that cannot be fetched: the page says so and can be tried again.
  if (failed) throw failed;
  if (who === null) return { state: { is: 'nobody' }, hands: null };
  if (who === 'asking' || !now?.loaded || !hands) return { state: { is: 'opening' }, hands: null };
  return { state: { is: 'ready', who, signedOut, ...now }, hands: { ...hands, rest } };
}
