import { endByAct } from '../attempts/walk';
import { choice, optionsOf } from '../correctable-field';
import type { Payload } from '../payloads';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const LEAVE_LABELS: Readonly<Record<Payload<'pulled_out'>['reason'], string>> = {
  enough: 'Enough charged',
  gave_up: 'Gave up',
  queue: 'The queue',
  price: 'The price',
  unsafe: 'Felt unsafe',
  closed: 'Closed',
  called_away: 'Called away',
};

export const pulledOut: KindFile<'pulled_out'> = {
  label: 'Pulled out',
  detail: ({ reason }) => [LEAVE_LABELS[reason].toLowerCase()],
  fields: [choice('reason', 'Why you left', optionsOf(LEAVE_LABELS))],
  seenByMany: true,
  act: true,
  attempt: (w, e) => {
    if (e.onlySeen) return;
    w.plug = null;
    endByAct(w, markOf(e), 'pulled_out');
  },
};
