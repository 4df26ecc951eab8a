import type { Side } from '../../faults/fault-list';
import type { MeansKind } from '../../records/means-kind';
import type { Payload } from '../payloads';
import type { Mark } from '../timing';

export type EndMark = 'A' | 'kW' | 'kWh';
export type Proof = Mark & { mark: EndMark; late: boolean };
export type Reading = Payload<'reading'> & { mark: Mark };
export type AttemptFault = { mark: Mark; code: string; side: Side /** It ended the attempt. */; ends: boolean };
export type Show = Mark & { meansKind: MeansKind; meansId?: string };
export type Refusal = Mark & { meansKind: MeansKind; meansId?: string; fault?: string };

export type LeaveReason = Payload<'pulled_out'>['reason'];
export type Outcome =
  | { kind: 'power'; at: Mark }
  | { kind: 'failed'; at: Mark; reason: string; side: Side | null; code?: string }
  | { kind: 'gave_up'; at: Mark; reason: string; side: Side | null; code?: string; left: LeaveReason }
  | { kind: 'open'; at: Mark; reason: string };

export type EndedBy = 'fault' | 'unplugged' | 'power_gone' | 'moved' | 'replug' | 'other_means' | 'act_after_power' | 'pulled_out';

/** One try to start charging. Numbers are derived, never stored. */
export type Attempt = {
  n: number;
  stallId: string | null;
  connectorId?: string;
  adapterId?: string;
  /** First act, or the fault itself for a stall found dead before any act. */
  opened: Mark;
  firstAct?: Mark;
  adapterFitted?: Mark;
  /** The last plugging in of this attempt. */
  plugged?: Mark;
  /** The plug was left in from an attempt before: plug to power is unknown. */
  pluggedEarlier: boolean;
  shows: Show[];
  accepted?: Show;
  refusals: Refusal[];
  claimed?: Mark;
  proof?: Proof;
  /** Power stopped and came back without an act of the driver. */
  pauses: { from: Mark; to: Mark }[];
  /** The first word that power had stopped, with no word of it since: once the attempt is over, charging ended here. */
  paused?: Mark;
  stopAsked?: Mark;
  powerGone?: Mark & { asked: boolean; notBefore?: number; why?: string };
  unplugged?: Mark;
  faults: AttemptFault[];
  readings: Reading[];
  /** What ended it, for good: whatever is noted later is no reason of it. */
  ended?: { at: Mark; by: EndedBy; fault?: AttemptFault };
  outcome: Outcome;
};

/** An attempt while the events are walked. */
export type Draft = Omit<Attempt, 'n' | 'outcome'>;

/** False where a visit typed in later says no more than that it charged: how it started, nobody noted. */
export const isNoted = (a: Pick<Attempt, 'opened' | 'proof'>): boolean => !(a.opened.precision === 'day' && a.opened.id === a.proof?.id);
