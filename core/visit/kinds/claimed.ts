import { attemptFor } from '../attempts/walk';
import { choice } from '../correctable-field';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const claimed: KindFile<'claimed'> = {
  label: 'Says charging',
  detail: ({ by }) => [`by ${by}`],
  fields: [
    choice('by', 'Claimed by', [
      ['screen', 'Screen'],
      ['light', 'Light'],
      ['beep', 'Beep'],
      ['app', 'App'],
    ]),
  ],
  seenByMany: true,
  attempt: (w, e) => {
    const a = e.onlySeen ? w.current : attemptFor(w, e);
    if (a) a.claimed ??= markOf(e);
  },
};
