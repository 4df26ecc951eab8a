import { attemptForAct } from '../attempts/walk';
import { choice, optionsOf } from '../correctable-field';
import type { Payload } from '../payloads';
import { markOf } from '../timing';
import type { KindFile } from './kind';

const LABELS: Readonly<Record<Payload<'first_act'>['what'], string>> = {
  handle: 'Handle taken',
  app: 'App opened',
  kiosk: 'Kiosk touched',
  again: 'Same stall again',
};

export const firstAct: KindFile<'first_act'> = {
  label: ({ what }) => LABELS[what] ?? 'First act',
  fields: [choice('what', 'First act', optionsOf(LABELS))],
  act: true,
  attempt: (w, e) => {
    if (e.onlySeen) return;
    // Meaning to try again is the first act of the attempt that follows, and no attempt where none does.
    if (e.payload.what === 'again' && (!w.current || w.current.paused)) w.again ??= markOf(e);
    else attemptForAct(w, e).firstAct ??= markOf(e);
  },
};
