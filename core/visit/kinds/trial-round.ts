import { number } from '../correctable-field';
import type { KindFile } from './kind';

/** The visit is a round of a trial. */
export const trialRound: KindFile<'trial_round'> = {
  label: ({ round }) => `Round ${round} of a trial`,
  detail: ({ side }) => [side],
  fields: [number('round', 'Round')],
  afterwards: true,
};
