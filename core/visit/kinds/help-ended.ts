import { choice, optionsOf } from '../correctable-field';
import type { Payload } from '../payloads';
import type { KindFile } from './kind';

export const HELP_RESULTS: Readonly<Record<NonNullable<Payload<'help_ended'>['result']>, string>> = {
  reset: 'They reset the stall',
  remote_start: 'They started it',
  refund_promised: 'Refund promised',
  none: 'Nothing came of it',
};

export const helpEnded: KindFile<'help_ended'> = {
  label: 'Helpline ended',
  detail: ({ result }) => [result ? HELP_RESULTS[result].toLowerCase() : null],
  fields: [choice('result', 'Result', optionsOf(HELP_RESULTS))],
};
