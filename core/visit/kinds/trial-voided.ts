import { text } from '../correctable-field';
import type { KindFile } from './kind';

/** The round does not count, for a reason that has nothing to do with how it came out. */
export const trialVoided: KindFile<'trial_voided'> = {
  label: 'Round voided',
  detail: ({ reason }) => [reason],
  fields: [text('reason', 'Why it does not count')],
  afterwards: true,
};
