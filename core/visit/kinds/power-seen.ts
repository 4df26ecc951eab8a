import { attemptFor, prove } from '../attempts/walk';
import { choice, yesNo } from '../correctable-field';
import type { KindFile } from './kind';
import { SCREEN } from './screen';

export const powerSeen: KindFile<'power_seen'> = {
  label: ({ late }) => (late ? 'Power seen, late' : 'Power seen'),
  detail: ({ mark, screen }) => [`${mark} on the ${screen}’s screen`],
  fields: [
    SCREEN,
    choice('mark', 'What was seen', [
      ['kW', 'kW'],
      ['kWh', 'kWh counting up'],
      ['A', 'Amps'],
    ]),
    yesNo('late', 'Seen late'),
  ],
  seenByMany: true,
  attempt: (w, e) => {
    const a = e.onlySeen ? w.current : attemptFor(w, e);
    if (a) prove(a, e, e.payload.mark, e.payload.late === true);
  },
};
