import type { DistanceUnit } from '../../units/distance';
import type { Walk } from '../attempts/walk';
import type { CorrectableField } from '../correctable-field';
import type { VisitEvent } from '../event';
import type { Kind } from '../payloads';
import type { Placed } from '../timeline/placed';
import { adapterFitted } from './adapter-fitted';
import { bill } from './bill';
import { change } from './change';
import { claimed } from './claimed';
import { correction } from './correction';
import { dangerCleared } from './danger-cleared';
import { fault } from './fault';
import { figureGiven } from './figure-given';
import { firstAct } from './first-act';
import { helpAnswered } from './help-answered';
import { helpCalled } from './help-called';
import { helpEnded } from './help-ended';
import { holdReleased } from './hold-released';
import type { KindFile, NameOf } from './kind';
import { mark } from './mark';
import { meansAccepted } from './means-accepted';
import { meansRefused } from './means-refused';
import { meansShown } from './means-shown';
import { note } from './note';
import { plugged } from './plugged';
import { powerGone } from './power-gone';
import { powerSeen } from './power-seen';
import { priceShown } from './price-shown';
import { pulledIn } from './pulled-in';
import { pulledOut } from './pulled-out';
import { queueJoined } from './queue-joined';
import { rating } from './rating';
import { reading } from './reading';
import { receipt } from './receipt';
import { released } from './released';
import { reserved } from './reserved';
import { stallChosen } from './stall-chosen';
import { stallFree } from './stall-free';
import { stallNamed } from './stall-named';
import { stopAsked } from './stop-asked';
import { stuck } from './stuck';
import { survey } from './survey';
import { trialRound } from './trial-round';
import { trialVoided } from './trial-voided';
import { unlocked } from './unlocked';
import { unplugged } from './unplugged';
import { withdrawal } from './withdrawal';

/** Every kind of event this version knows, in the order of a visit. The schemas of their payloads stand in payloads.ts: a phone does not carry them. */
const REGISTRY: { readonly [K in Kind]: KindFile<K> } = {
  pulled_in: pulledIn,
  survey,
  queue_joined: queueJoined,
  stall_free: stallFree,
  stall_chosen: stallChosen,
  stall_named: stallNamed,
  first_act: firstAct,
  adapter_fitted: adapterFitted,
  plugged,
  means_shown: meansShown,
  means_accepted: meansAccepted,
  means_refused: meansRefused,
  price_shown: priceShown,
  claimed,
  power_seen: powerSeen,
  reading,
  change,
  fault,
  stop_asked: stopAsked,
  power_gone: powerGone,
  unlocked,
  stuck,
  unplugged,
  help_called: helpCalled,
  help_answered: helpAnswered,
  help_ended: helpEnded,
  danger_cleared: dangerCleared,
  reserved,
  released,
  pulled_out: pulledOut,
  bill,
  receipt,
  hold_released: holdReleased,
  rating,
  note,
  mark,
  trial_round: trialRound,
  trial_voided: trialVoided,
  figure_given: figureGiven,
  correction,
  withdrawal,
};

export const KINDS = Object.keys(REGISTRY) as readonly Kind[];
export const isKind = (kind: string): kind is Kind => Object.hasOwn(REGISTRY, kind);

const fileOf = (kind: Kind) => REGISTRY[kind] as unknown as KindFile<never>;

export const isSeenByMany = (kind: Kind): boolean => fileOf(kind).seenByMany === true;
export const isAfterwards = (kind: Kind): boolean => fileOf(kind).afterwards === true;
export const isActAtStall = (kind: Kind): boolean => fileOf(kind).act === true;

/** What an event does to the attempts. */
export const attemptEffect = (w: Walk, e: Placed): void => fileOf(e.kind).attempt?.(w, e as never);

const nothing: NameOf = () => '';

/** What an event is called on the tape and in lists. */
export function eventLabel(e: Pick<VisitEvent, 'kind' | 'payload'>, nameOf: NameOf = nothing): string {
  const { label } = fileOf(e.kind);
  return typeof label === 'string' ? label : label(e.payload as never, nameOf);
}

/** What an event holds, in a line. @param attempts the attempts that some events belong to, in words; `null`: none named */
export const eventDetail = (
  e: Pick<VisitEvent, 'kind' | 'payload'>,
  nameOf: NameOf,
  attempts: (eventIds: readonly string[]) => string | null,
  distance: DistanceUnit = 'km',
): string => (fileOf(e.kind).detail?.(e.payload as never, nameOf, attempts, distance) ?? []).filter(Boolean).join(', ');

/** The fields of an event that can be corrected afterwards; every kind's time can. */
export function correctableFields(kind: Kind, payload: Readonly<Record<string, unknown>>): readonly CorrectableField[] {
  const { fields } = fileOf(kind);
  return typeof fields === 'function' ? fields(payload as never) : (fields ?? []);
}
