import type { Fault } from '@/core/faults/fault-list';

/** Sheets that need no more than the touch that opened them: its time is what they record. */
export type Plain =
  | 'fault'
  | 'stall'
  | 'reading'
  | 'bill'
  | 'more'
  | 'change'
  | 'leave'
  | 'means'
  | 'survey'
  | 'arrival'
  | 'adapter'
  | 'help'
  | 'danger'
  | 'helpline'
  | 'enrolments'
  | 'place'
  | 'named'
  | 'price'
  | 'prices'
  | 'note'
  | 'gone'
  | 'stuck'
  | 'rating'
  | 'stopwatch'
  | 'receipt'
  | 'photo'
  | 'cautions'
  | 'stay'
  | 'advice'
  | 'join_code'
  | 'film';
/** `id` of a fault: of its event, `null` until it is on the disk; `recorded` waits for it. */
export type Open =
  | { sheet: Plain; at: number }
  | { sheet: 'after_fault'; fault: Fault; id: string | null; recorded: Promise<string | null>; at: number }
  | { sheet: 'mark'; id: string };
