import type { Usual } from '@/core/compare/usual-handshake';
import type { Lately } from '@/core/power/compatible-stalls';
import type { Outlooks } from '@/core/power/stay-or-go';
import type { TrialSteps } from '@/core/protocol/changes';
import type { Dangers } from '@/core/visit/dangers';
import type { Visit } from '@/core/visit/derive';
import type { Kind, Payload } from '@/core/visit/payloads';
import type { OutboxStatus } from '../outbox/outbox-loop';
import type { KeptEvent } from '../store/phone-store';
import type { Records } from '../store/records-by-type';

export type Draft<K extends Kind = Kind> = { [P in K]: { kind: P; payload: Payload<P> } }[K];

/** What a visit on this phone is at, for whoever shows it. */
export type SessionState = {
  loaded: boolean;
  records: Records;
  /** Whether the records are those of the household: of a new phone they are still asked for, or could not be. */
  places: 'asking' | 'unreached' | 'known';
  /** What happened last at each stall, as far as the phone knows. */
  lately: Lately;
  usual: Usual;
  /** Reported at stalls and not cleared, by this visit too. */
  dangers: Dangers;
  /** Steps of the open trials that are done, on whichever phone, as far as this one knows. */
  trialSteps: TrialSteps;
  outlooks: Outlooks;
  visitId: string | null;
  visit: Visit | null;
  kept: readonly KeptEvent[];
  outbox: OutboxStatus | null;
  /** Why this device cannot write down what is recorded; `null` while it can. */
  cannotKeep: string | null;
  /** This phone looks on at a visit that another one records. */
  observing: boolean;
  /** For how many seconds the phone that records has been silent, as far as is known here; `null` when this one records. */
  silent_s: number | null;
  /** The next visit belongs to the same stop as the one before. */
  goesOn: boolean;
  /** What undo would take back, the latest first: everything made at one touch. */
  undoable: readonly KeptEvent[];
  /** Grows with each touch kept. */
  touches: number;
};

export const NO_OUTLOOKS: Outlooks = { sites: {}, cars: {} };
/** A session that is not open yet. */
export const NOTHING_YET: Omit<SessionState, 'records'> = {
  loaded: false,
  places: 'asking',
  lately: {},
  usual: {},
  dangers: {},
  trialSteps: {},
  outlooks: NO_OUTLOOKS,
  visitId: null,
  visit: null,
  kept: [],
  outbox: null,
  cannotKeep: null,
  observing: false,
  silent_s: null,
  goesOn: false,
  undoable: [],
  touches: 0,
};
