import type { LedgerRow } from '@/core/compare/ledger-row';
import type { Usual } from '@/core/compare/usual-handshake';
import type { Lately } from '@/core/power/compatible-stalls';
import type { Outlooks } from '@/core/power/stay-or-go';
import type { TrialSteps } from '@/core/protocol/changes';
import type { RecordItem } from '@/core/records/record-schema';
import { type Dangers, withDangers } from '@/core/visit/dangers';
import type { Role } from '@/core/visit/event';
import type { PayloadCheck } from '@/core/visit/payloads';
import { waitingHere } from '../outbox/outbox-loop';
import { refusedEvents, sendMended, sendRefusedAgain } from '../outbox/refused-events';
import { type HeldEvents, refusedOf } from '../store/held-events';
import { type EventDraft, eventsOfVisit, keepFromServer, keepMade } from '../store/keep-event';
import { pullChanges } from '../store/keep-record';
import type { LastVisit } from '../store/last-visits';
import type { KeptEvent, PhoneStore } from '../store/phone-store';
import { byType, noRecords } from '../store/records-by-type';
import type { PhoneWho } from '../store/who';
import { recordChanges } from './record-changes';
import { type Draft, NO_OUTLOOKS, NOTHING_YET, type SessionState } from './session-state';
import type { SessionWays } from './session-ways';
import { withTold } from './trial-steps';
import { looksOn, nextVisitId, readVisit, silentFor, takeNextVisitId, toUndo } from './visit-here';

export type VisitSession = ReturnType<typeof visitSession>;

const notChecked: PayloadCheck = () => ({ path: '', reason: 'not checked yet' });
const reasonOf = (error: unknown) =>
  error instanceof DOMException && error.name === 'QuotaExceededError' ? 'its storage is full' : error instanceof Error ? error.message : String(error);

/**
 * A visit as one person records it: what is kept, what is shown of it, and what can be done, without any screen.
 * @param ways where it keeps, what it asks, and by which clock: the phone's, or others that a rehearsal or a test gives
 * @param held of the page, not of what is drawn on it: drawn anew after an error, it still holds what was recorded
 */
export function visitSession(who: PhoneWho, held: HeldEvents, ways: SessionWays) {
  let store: PhoneStore | null = null;
  let loop: ReturnType<SessionWays['startOutbox']> | null = null;
  let check = notChecked;
  let deriveVisit: Awaited<ReturnType<SessionWays['derivation']>> | null = null;
  let tookOver: string | null = null;
  /** Dangers that the ledger knows, and those of the visits left here since. */
  let dangers: Dangers = {};
  let closed = false;
  /** Grows with each visit that was asked for: of two the later one opens. */
  let asked = 0;
  const listeners = new Set<() => void>();
  let state: SessionState = { ...NOTHING_YET, records: noRecords() };

  const set = (some: Partial<SessionState>) => {
    if (closed) return;
    state = { ...state, ...some };
    for (const tell of listeners) tell();
  };
  const changes = recordChanges(() => state.records, ways.sendRecords, set);
  const derived = (visitId: string | null, kept: readonly KeptEvent[]): Partial<SessionState> => {
    const events = kept.map((k) => k.event);
    const observing = visitId !== null && tookOver !== visitId && looksOn(kept);
    const visit = visitId === null || !deriveVisit ? null : deriveVisit(visitId, events, check);
    return {
      visitId,
      kept,
      visit,
      dangers: withDangers(dangers, visit?.dangers ?? []),
      observing,
      silent_s: observing ? silentFor(kept, ways.now()) : null,
      undoable: toUndo(kept),
    };
  };
  const show = (visitId: string | null, kept: readonly KeptEvent[], more: Partial<SessionState> = {}) => {
    set({ ...derived(visitId, kept), ...more });
    // The schemas are fetched only for a visit some figure of which was corrected.
    if (check === notChecked && kept.some((k) => k.event.kind === 'correction' && k.event.payload.set !== undefined))
      void ways.payloadCheck().then(
        (found) => {
          check = found;
          set(derived(state.visitId, state.kept));
        },
        () => {},
      );
  };
  /** Reads the open visit anew, if it still is the open one. */
  const readAgain = async (id: string | null = state.visitId): Promise<void> => {
    if (id === null) return;
    const kept = await readVisit(store, held, id);
    if (state.visitId === id) show(id, kept);
  };
  const readRecords = async (s: PhoneStore) => {
    const [lately, usual, known, trials, outlooks] = await Promise.all(['lately', 'usual', 'dangers', 'trials', 'outlooks'].map((key) => s.get('meta', key)));
    const unsent = (await s.getAllFromIndex('event', 'byState', 'kept')).map((k) => k.event);
    // Read last and drawn at once: of two readings the later is drawn last.
    const records = changes.over(await s.getAll('record'));
    dangers = (known as Dangers | undefined) ?? {};
    set({
      trialSteps: withTold((trials as TrialSteps | undefined) ?? {}, unsent),
      records,
      lately: (lately as Lately | undefined) ?? {},
      usual: (usual as Usual | undefined) ?? {},
      outlooks: (outlooks as Outlooks | undefined) ?? NO_OUTLOOKS,
      dangers: withDangers(dangers, state.visit?.dangers ?? []),
    });
  };
  const unanswered = (): Partial<SessionState> => (state.places === 'known' ? {} : { places: 'unreached' });
  /** Takes what the household wrote since; a new phone that was not answered is asked for again. */
  const follow = async (s: PhoneStore): Promise<boolean> => {
    const told = await pullChanges(s);
    if (told) await readRecords(s);
    set(told ? { places: 'known' } : unanswered());
    return told;
  };
  const startSending = () => {
    loop = ways.startOutbox(store, held, (outbox) => {
      set({ outbox });
      if (outbox.last === 'signed_out') ways.signedOut();
      if (store && outbox.records) void readRecords(store);
      void readAgain();
    });
  };

  /** Records events at the touch. Starts a visit when none is open. @returns their ids, once they are kept */
  async function act(timeStamp: number, ...drafts: Draft[]): Promise<string[]> {
    if (!state.loaded || drafts.length === 0) return [];
    const touch = ways.touchTime(timeStamp);
    const awake = ways.takeAwake();
    const { visitId, visit, records } = state;
    const id = visitId ?? (store ? await takeNextVisitId(store) : null) ?? ways.newId();
    const siteId = drafts.find((d) => d.kind === 'pulled_in')?.payload.siteId ?? visit?.siteId;
    const zone = records.site.find((x) => x.id === siteId)?.fields.zone ?? ways.zone();
    const role: Role = state.observing ? 'observer' : 'recorder';
    const made = drafts.map((d): EventDraft => ({ visitId: id, kind: d.kind, payload: d.payload, zone, touch, role }));
    let ids: string[];
    let cannotKeep = state.cannotKeep;
    try {
      if (!store) throw new Error('nothing can be kept here');
      // What an earlier failure left in memory goes first, so that the order stays.
      await held.writeDown(store);
      ids = (await keepMade(store, { who, awake }, made, visitId === null)).map((e) => e.id);
      cannotKeep = null;
      ways.buzz(30);
    } catch (error) {
      // Reading mostly works where writing does not: no two events share a place in the order.
      const known = store ? await eventsOfVisit(store, id).catch(() => state.kept) : state.kept;
      ids = held.add(who, awake, made, known).map((e) => e.id);
      if (store) cannotKeep = reasonOf(error);
      ways.buzz([30, 60, 30]);
    }
    // The corner never says "all sent" of what was kept just now.
    const waits = await waitingHere(store, held).catch(() => waitingHere(null, held));
    const before = state.outbox;
    show(id, await readVisit(store, held, id), {
      cannotKeep,
      trialSteps: withTold(state.trialSteps, drafts),
      ...(visitId === null ? { goesOn: false } : {}),
      touches: state.touches + 1,
      outbox: { refused: before?.refused ?? 0, unsettled: before?.unsettled ?? 0, last: before?.last ?? null, records: false, ...waits },
    });
    // A round that is taken back is to be run again.
    if (store && records.trial.length > 0 && drafts.some((d) => d.kind === 'withdrawal')) await readRecords(store).catch(() => {});
    void loop?.wake();
    return ids;
  }
  /** A version that waits takes over where nothing is lost by it: no visit runs by now, however long the server took, and nothing lives in this page alone. */
  async function letNewVersionIn(): Promise<void> {
    if (state.visitId === null && held.all().length + held.photos().length === 0) await ways.newVersion();
  }
  /** Leaves the visit, finished or not; it stays in the ledger. */
  async function leaveVisit(): Promise<void> {
    dangers = state.dangers;
    await store?.put('meta', dangers, 'dangers').catch(() => {});
    await store?.delete('meta', 'openVisit').catch(() => {});
    show(null, []);
    // What the others of a trial ran meanwhile decides what is next; without a network what this phone knows does.
    if (store && state.records.trial.length > 0) {
      const s = store;
      void pullChanges(s)
        .catch(() => false)
        .then(() => readRecords(s))
        .catch(() => {});
    }
    await letNewVersionIn();
  }

  return {
    state: (): SessionState => state,
    subscribe(tell: () => void): () => void {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },

    /** Opens what is kept here and begins to send. Where nothing can be kept, the visit goes on in memory. */
    async open(): Promise<void> {
      deriveVisit = await ways.derivation();
      try {
        const s = await ways.openStore(who);
        if (closed) return s.close();
        store = s;
        await readRecords(s);
        if ((await s.get('meta', 'rev')) !== undefined) set({ places: 'known' });
        const open = ((await s.get('meta', 'openVisit')) as string | undefined) ?? null;
        tookOver = ((await s.get('meta', 'tookOver')) as string | undefined) ?? null;
        show(open, open ? await readVisit(s, held, open) : [], { goesOn: (await nextVisitId(s)) !== null, loaded: true });
        startSending();
        // A copy that cannot follow the household is no reason to stop keeping.
        // After a restore more waits to be sent than before.
        if (await follow(s).catch((error) => set({ cannotKeep: reasonOf(error), ...unanswered() }))) void loop?.wake();
        await letNewVersionIn();
      } catch (error) {
        if (closed) return;
        // Said at once; the visit goes on in the page's memory.
        set({ cannotKeep: reasonOf(error) });
        const answer = await ways.changesSince(0);
        set({
          loaded: true,
          places: answer ? 'known' : 'unreached',
          ...(answer
            ? {
                records: byType(answer.records),
                lately: answer.lately ?? {},
                usual: answer.usual ?? {},
                outlooks: answer.outlooks ?? NO_OUTLOOKS,
                dangers: answer.dangers ?? {},
                trialSteps: answer.trials ?? {},
              }
            : {}),
        });
        startSending();
      }
    },
    close(): void {
      closed = true;
      loop?.stop();
      store?.close();
    },

    act,
    /** Takes back what this device's last touch made; the visit with its first. */
    async undo(timeStamp: number): Promise<void> {
      const made = state.undoable;
      const first = made.find((k) => k.event.kind === 'pulled_in');
      // Taking back the pulling in takes back the visit: the driver is before the choice of the site again.
      const targets = first ? [first.event.visitId] : made.map((k) => k.event.id);
      await act(timeStamp, ...targets.map((target): Draft => ({ kind: 'withdrawal', payload: { target } })));
      if (first) await leaveVisit();
    },
    leaveVisit,
    /** Opens a visit that is on this phone, or joins one that another recorded. @returns why not, else null */
    async openVisit(id: string): Promise<string | null> {
      const [mine, before] = [++asked, state.visitId];
      // Whoever pulled in, or asked for another one, while the network was slow is not taken away from it.
      const open = async (): Promise<boolean> => {
        const here = await readVisit(store, held, id);
        if (mine !== asked || state.visitId !== before) return true;
        if (!here.some((k) => k.event.kind === 'pulled_in')) return false;
        // Shown as soon as it was asked: a touch in between would belong to neither.
        show(id, here);
        await store?.put('meta', id, 'openVisit');
        return true;
      };
      // What is here opens at once; what others recorded of it comes after.
      const isHere = await open();
      const events = await ways.visitEvents(id, 0);
      if (events && store) await keepFromServer(store, events);
      else if (events) held.take(events);
      if (isHere) {
        if (events) await readAgain(id);
        return null;
      }
      return (await open()) ? null : 'Only its line is on this phone. It opens once there is a network.';
    },
    /** From now on this phone records the open visit: what it notes opens, cuts and ends attempts. */
    async takeOver(): Promise<void> {
      tookOver = state.visitId;
      await store?.put('meta', tookOver, 'tookOver').catch(() => {});
      set(derived(state.visitId, state.kept));
    },
    /** Takes what other phones, and other pages of this one, recorded of the open visit. */
    async look(): Promise<void> {
      const id = state.visitId;
      if (!store || id === null) return;
      const here = await eventsOfVisit(store, id);
      if (here.length !== state.kept.length) await readAgain(id);
      const have = here.filter((k) => k.state === 'sent').length;
      // Before anything is sent the server knows nothing of it.
      const events = have === 0 ? null : await ways.visitEvents(id, have);
      if (events) await keepFromServer(store, events);
      if (events || state.observing) await readAgain(id);
    },

    /** The last visits as the ledger said last, then as it says now. */
    async lastVisits(onRows: (visits: LastVisit[]) => void): Promise<void> {
      if (!state.loaded) return;
      // A new phone that was not answered asks again; the visits do not wait for it.
      if (store && state.places === 'unreached') void follow(store).catch(() => {});
      const { bringAlong, pruneSent, visitsAtHand } = await ways.lastVisitsPart();
      const now = ways.now();
      const before = ((await store?.get('meta', 'lastVisits')) as LedgerRow[] | undefined) ?? [];
      onRows(await visitsAtHand(store, held, before, now));
      const rows = await ways.lastVisits();
      if (!rows) return;
      await store?.put('meta', rows, 'lastVisits').catch(() => {});
      if (store) await pruneSent(store, rows, now).catch(() => {});
      onRows(await visitsAtHand(store, held, rows, now));
      // One that could not be brought is listed, and opens when there is a network.
      if (store && (await bringAlong(store, rows).catch(() => false))) onRows(await visitsAtHand(store, held, rows, now));
    },
    async addRecords(items: RecordItem[]): Promise<void> {
      if (!state.loaded) return;
      await changes.add(store, items);
      void loop?.wake();
    },
    /** Reads places and garage again from the phone's store, and sends what waits. */
    async lookAgain(): Promise<void> {
      await loop?.wake();
      if (store) await readRecords(store);
    },
    /** What the server refused, of every visit. */
    refused: async (): Promise<KeptEvent[]> => [...(store ? await refusedEvents(store) : []), ...refusedOf(held)],
    async sendRefusedAgain(): Promise<void> {
      for (const k of refusedOf(held)) held.settle(k.event.id, { state: 'kept' });
      if (store) await sendRefusedAgain(store);
      void loop?.wake();
    },
    /** Sends a refused event as mended. */
    async sendMended(id: string, mended: { at: number; payload: Record<string, unknown> }): Promise<void> {
      if (store) await sendMended(store, id, mended);
      await readAgain();
      void loop?.wake();
    },
    /** Keeps a photo for sending. @returns its SHA-256 @throws with a sentence */
    async keepPhoto(file: Blob): Promise<string> {
      const photo = await ways.takePhoto(file);
      try {
        if (!store) throw new Error('nothing can be kept here');
        await ways.writePhoto(store, photo);
      } catch (error) {
        // Like an event, it lives as long as the page and is sent from there.
        held.addPhoto(photo);
        if (store) set({ cannotKeep: reasonOf(error) });
      }
      void loop?.wake();
      return photo.sha256;
    },
    /** The id that the next visit will have, when it goes on from one that gave nothing; `null`: it stands alone. */
    async linkNextVisit(id: string | null): Promise<void> {
      if (id === null) await store?.delete('meta', 'nextVisit');
      else await store?.put('meta', { id, at: ways.wallNow() }, 'nextVisit');
      set({ goesOn: id !== null });
    },
  };
}
