import type { Usual } from '../compare/usual-handshake';
import type { Lately } from '../power/compatible-stalls';
import type { Outlooks } from '../power/stay-or-go';
import type { MileRecord } from '../records/record-schema';
import type { Dangers } from '../visit/dangers';

/**
 * What was written in a household since a rev. `epoch` is another one after the ledger was restored from a backup, which had
 * `epochRev`. What is summed up of all visits comes only when it may have changed.
 */
export type Changes = {
  rev: number;
  epoch?: string;
  epochRev?: number;
  records: MileRecord[];
  lately?: Lately;
  usual?: Usual;
  dangers?: Dangers;
  trials?: TrialSteps;
  /** What the ledger knows of sites and cars, for advice without a network. */
  outlooks?: Outlooks;
};
/** Steps of each open trial that are done, by its id, such as `3a`. */
export type TrialSteps = Readonly<Record<string, readonly string[]>>;
