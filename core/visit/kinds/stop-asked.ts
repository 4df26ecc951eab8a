import { choice, optionsOf } from '../correctable-field';
import type { Payload } from '../payloads';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const STOP_LABELS: Readonly<Record<NonNullable<Payload<'stop_asked'>['by']>, string>> = { button: 'Button', card: 'Card', app: 'App', car: 'Car' };

export const stopAsked: KindFile<'stop_asked'> = {
  label: 'Pressed stop',
  detail: ({ by }) => [by ? `by ${by}` : null],
  fields: [choice('by', 'Stopped by', optionsOf(STOP_LABELS))],
  seenByMany: true,
  attempt: (w, e) => {
    const a = w.current;
    // The recorder's word counts before that of somebody looking on.
    if (a && (!a.stopAsked || (a.stopAsked.onlySeen && !e.onlySeen))) a.stopAsked = markOf(e);
  },
};
