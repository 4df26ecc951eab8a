import { attemptForAct } from '../attempts/walk';
import { choice } from '../correctable-field';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const firstAct: KindFile<'first_act'> = {
  label: 'First act',
  detail: ({ what }) => [what],
  fields: [
    choice('what', 'First act', [
      ['handle', 'Handle taken'],
      ['app', 'In the app'],
      ['kiosk', 'At the kiosk'],
    ]),
  ],
  act: true,
  attempt: (w, e) => {
    if (!e.onlySeen) attemptForAct(w, e).firstAct ??= markOf(e);
  },
};
