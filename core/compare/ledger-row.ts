import type { ThinSegment } from '../visit/tape';

/** One visit as a row of the ledger. Amounts and kWh are decimal strings, seconds are numbers, `null` is unknown. */
export type LedgerRow = {
  id: string;
  at: number;
  /** False where only the day is known. */
  timeKnown: boolean;
  zone: string;
  month: string;
  siteId: string | null;
  siteName: string | null;
  networkName: string | null;
  state: 'over' | 'running' | 'left_open';
  ended: 'charge' | 'none' | 'open';
  leftReason: string | null;
  attempts: number;
  failed: number;
  handshake_s: number | null;
  handshakeBound: string | null;
  kWh: string | null;
  /** It was read before the charge was over, and nothing later tells of the rest. */
  kWhAtLeast: boolean;
  paid: string | null;
  currency: string | null;
  faultCodes: string[];
  tape: ThinSegment[];
  newer: boolean;
  /** Who drove, by name. */
  driver: string | null;
  /** Private to somebody else: what is above says no more than that the car was charged. */
  isPrivate: boolean;
};

/** What some visits come to; money by currency. */
export type LedgerSum = { visits: number; kWh: string; kWhAtLeast: boolean; paid: { amount: string; currency: string }[] };
/** The same of a month, under the same filter as the rows. */
export type LedgerMonth = { month: string } & LedgerSum;
