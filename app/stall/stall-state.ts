import type { OutboxStatus } from '@/client/outbox/outbox-loop';
import type { LastVisit } from '@/client/store/last-visits';
import type { KeptEvent } from '@/client/store/phone-store';
import type { Records } from '@/client/store/records-by-type';
import type { PhoneWho } from '@/client/store/who';
import type { Usual } from '@/core/compare/usual-handshake';
import type { Lately } from '@/core/power/compatible-stalls';
import type { RecordItem } from '@/core/records/record-schema';
import type { Visit } from '@/core/visit/derive';
import type { Kind } from '@/core/visit/kinds';
import type { Payload } from '@/core/visit/payloads';
import type { Rest } from '@/ui/pads/rest';

export type { Records } from '@/client/store/records-by-type';
export type Draft<K extends Kind = Kind> = { [P in K]: { kind: P; payload: Payload<P> } }[K];

export type StallState =
  | { is: 'opening' }
  | { is: 'nobody' }
  | {
      is: 'ready';
      who: PhoneWho;
      signedOut: boolean;
      records: Records;
      /** What happened last at each stall, as far as the phone knows. */
      lately: Lately;
      usual: Usual;
      visitId: string | null;
      visit: Visit | null;
      kept: KeptEvent[];
      outbox: OutboxStatus | null;
      /** Why this device cannot write down what is recorded; `null` while it can. */
      cannotKeep: string | null;
      /** This phone looks on at a visit that another one records. */
      observing: boolean;
      /** The next visit belongs to the same stop as the one before. */
      goesOn: boolean;
    };

export type StallHands = {
  /** Records events at the touch. Starts a visit when none is open. @returns their ids, once they are kept */
  act: (timeStamp: number, ...drafts: Draft[]) => Promise<string[]>;
  /** Takes back this device's last event; the visit with its first. */
  undo: (timeStamp: number) => Promise<void>;
  /** What undo would take back. */
  undoable: KeptEvent | null;
  addRecords: (items: RecordItem[]) => Promise<void>;
  /** What the server refused, of every visit. */
  refused: () => Promise<KeptEvent[]>;
  sendRefusedAgain: () => Promise<void>;
  /** Sends a refused event as mended. */
  sendMended: (id: string, mended: { at: number; payload: Record<string, unknown> }) => Promise<void>;
  /** Reads places and garage again from the phone's store, and sends what waits. */
  lookAgain: () => Promise<void>;
  /** Leaves the visit, finished or not; it stays in the ledger. */
  leaveVisit: () => Promise<void>;
  /** Opens a visit that is on this phone, or joins one that another recorded. @returns why not, else null */
  openVisit: (visitId: string) => Promise<string | null>;
  /** The last visits as the ledger said last, then as it says now. */
  lastVisits: (onRows: (visits: LastVisit[]) => void) => Promise<void>;
  /** Keeps a photo for sending. @returns its SHA-256 @throws with a sentence */
  keepPhoto: (file: Blob) => Promise<string>;
  /** The id that the next visit will have, when it goes on from one that gave nothing; `null`: it stands alone. */
  linkNextVisit: (visitId: string | null) => Promise<void>;
  /** For 700 ms after a tap the pads take no touch. */
  rest: Rest;
  /** Grows with each event kept: the page flashes. */
  flash: number;
};
