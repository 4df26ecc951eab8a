import { faultLabel } from '../faults/fault-list';
import { meansPad } from '../records/means-kind';
import { EVENT_VERSION, type StoredEvent, type VisitEvent } from './event';
import type { Payload } from './payloads';

const CHANGES: Record<string, string> = {
  neighbour_in: 'Neighbour plugs in',
  neighbour_out: 'Neighbour leaves',
  climate_on: 'Climate on',
  climate_off: 'Climate off',
  fans: 'Fans',
  derate: 'Power drops',
  paused: 'Paused',
  resumed: 'Resumed',
  cold: 'Cold',
  rain: 'Rain',
  other: 'Changed',
};
export const CHANGE_LABELS: Readonly<Record<string, string>> = CHANGES;

/** Words for the choices that several screens offer. */
export const GONE_LABELS: Readonly<Record<NonNullable<Payload<'power_gone'>['why']>, string>> = {
  asked: 'I asked it to',
  car_target: 'The car’s target',
  site_cap: 'A limit of the site',
  time_limit: 'A time limit',
  hold_used_up: 'The hold was used up',
  load_management: 'Load management',
  fault: 'A fault',
  power_cut: 'A power cut',
  emergency: 'Emergency stop',
  unplugged_by_other: 'Unplugged by somebody',
  unknown: 'Not known',
};
export const STOP_LABELS: Readonly<Record<Payload<'stop_asked'>['by'], string>> = { button: 'Button', card: 'Card', app: 'App', car: 'Car' };
export const LEAVE_LABELS: Readonly<Record<Payload<'pulled_out'>['reason'], string>> = {
  enough: 'Enough charged',
  gave_up: 'Gave up',
  queue: 'The queue',
  price: 'The price',
  unsafe: 'Felt unsafe',
  closed: 'Closed',
  called_away: 'Called away',
};
export const HELP_RESULTS: Readonly<Record<NonNullable<Payload<'help_ended'>['result']>, string>> = {
  reset: 'They reset the stall',
  remote_start: 'They started it',
  refund_promised: 'Refund promised',
  none: 'Nothing came of it',
};
export const BAY_LABELS: Readonly<Record<Payload<'survey'>['stalls'][number]['state'], string>> = {
  free: 'Free',
  charging: 'Charging',
  idle_car: 'Idle car',
  blocked: 'Blocked',
  dark: 'Dark',
  closed: 'Closed',
  derated: 'Derated',
  not_looked: 'Not looked',
};

/** What an event is called on the tape and in lists. @param stallName name of a stall by its id, for moves */
export function eventLabel(e: VisitEvent, stallName: (id: string) => string = () => ''): string {
  switch (e.kind) {
    case 'pulled_in':
      return 'Pulled in';
    case 'survey':
      return 'Bays looked at';
    case 'queue_joined':
      return 'Queue joined';
    case 'stall_free':
      return 'Stall free';
    case 'stall_chosen':
      return `Stall ${stallName(e.payload.stallId)} chosen`.replace('  ', ' ');
    case 'stall_named':
      return `Named ${e.payload.text}`;
    case 'first_act':
      return 'First act';
    case 'adapter_fitted':
      return 'Adapter fitted';
    case 'plugged':
      return 'Plugged in';
    case 'means_shown':
      return meansPad(e.payload.meansKind);
    case 'means_accepted':
      return 'Accepted';
    case 'means_refused':
      return e.payload.fault ? faultLabel(e.payload.fault) : 'Refused';
    case 'price_shown':
      return 'Price shown';
    case 'claimed':
      return 'Says charging';
    case 'power_seen':
      return e.payload.late ? 'Power seen, late' : 'Power seen';
    case 'reading':
      return 'Reading';
    case 'change':
      return e.payload.text ?? CHANGES[e.payload.what] ?? 'Changed';
    case 'fault':
      return faultLabel(e.payload.code);
    case 'stop_asked':
      return 'Pressed stop';
    case 'power_gone':
      return 'Power gone';
    case 'unlocked':
      return 'Unlocked';
    case 'stuck':
      return 'Handle stuck';
    case 'unplugged':
      return 'Unplugged';
    case 'help_called':
      return 'Helpline called';
    case 'help_answered':
      return 'Helpline answered';
    case 'help_ended':
      return 'Helpline ended';
    case 'reserved':
      return 'Reserved';
    case 'released':
      return 'Released';
    case 'pulled_out':
      return 'Pulled out';
    case 'bill':
      return 'Bill';
    case 'receipt':
      return 'Receipt';
    case 'rating':
      return 'Rating';
    case 'note':
      return 'Note';
    case 'figure_given':
      return 'Stopwatch figure';
    case 'correction':
      return 'Correction';
    case 'withdrawal':
      return 'Taken back';
  }
}

/** What is said of an event that stands beside the line: one of a newer version, or a change of something that has not arrived. */
export function asideLabel(e: StoredEvent): string {
  if (e.kind === 'correction' && e.v <= EVENT_VERSION) return 'a correction of something that is not here yet';
  if (e.kind === 'withdrawal' && e.v <= EVENT_VERSION) return 'the taking back of something that is not here yet';
  return `“${e.kind.replaceAll('_', ' ')}” of a newer version`;
}
