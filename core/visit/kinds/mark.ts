import { choice, optionsOf, text } from '../correctable-field';
import type { Payload } from '../payloads';
import type { KindFile } from './kind';

export const MARK_LABELS: Readonly<Record<Payload<'mark'>['as'], string>> = {
  business: 'Business',
  private: 'Private',
  left_out: 'Left out of comparisons',
};

/** What a person says a visit is to count as. */
export const mark: KindFile<'mark'> = {
  label: (p) => MARK_LABELS[p.as],
  detail: ({ reason }) => [reason],
  fields: [choice('as', 'Counts as', optionsOf(MARK_LABELS)), text('reason', 'Why')],
  afterwards: true,
};
