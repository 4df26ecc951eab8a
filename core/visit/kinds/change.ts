import { pause, resume } from '../attempts/walk';
import { choice, optionsOf, text } from '../correctable-field';
import type { Payload } from '../payloads';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const CHANGE_LABELS: Readonly<Record<Payload<'change'>['what'], string>> = {
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
  other: 'Something changed',
};

export const change: KindFile<'change'> = {
  label: (p) => p.text ?? CHANGE_LABELS[p.what],
  fields: [choice('what', 'What changed', optionsOf(CHANGE_LABELS)), text('text', 'In words')],
  seenByMany: true,
  attempt: (w, e) => {
    if (!w.current) return;
    if (e.payload.what === 'resumed') resume(w.current, markOf(e));
    else if (e.payload.what === 'paused' && w.current.proof) pause(w.current, markOf(e));
  },
};
