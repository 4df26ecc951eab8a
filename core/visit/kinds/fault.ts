import { FAULTS, faultLabel, faultOf, SIDES } from '../../faults/fault-list';
import type { AttemptFault } from '../attempts/attempt';
import { end, open } from '../attempts/walk';
import { choice, text } from '../correctable-field';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const fault: KindFile<'fault'> = {
  label: ({ code }) => faultLabel(code),
  detail: ({ side, text }) => [`${side}’s side`, text],
  fields: [
    choice(
      'code',
      'Fault',
      FAULTS.map((f) => [f.code, f.label] as const),
    ),
    choice(
      'side',
      'Whose side it seems',
      SIDES.map((s) => [s, s] as const),
    ),
    text('text', 'What it said'),
  ],
  seenByMany: true,
  attempt: (w, e) => {
    const at = markOf(e);
    const known = faultOf(e.payload.code);
    const noted: AttemptFault = { mark: at, code: e.payload.code, side: e.payload.side, ends: false };
    const a = w.current ?? w.here;
    const shown = a?.shows.at(-1);
    if (known?.refusal && w.current && a && shown && !e.onlySeen) {
      a.refusals.push({ ...at, meansKind: shown.meansKind, ...(shown.meansId ? { meansId: shown.meansId } : {}), fault: noted.code });
    } else if (!known?.ends || e.onlySeen || (a && !w.current && !w.again)) {
      // What ended the attempt before stays its reason, unless another was meant to follow.
      a?.faults.push(noted);
    } else if (w.stallId || w.current || w.unnamed) {
      // Before any act the stall was found dead: a failed attempt of zero length.
      const ends = { ...noted, ends: true };
      (w.current ?? open(w, at)).faults.push(ends);
      end(w, at, 'fault', ends);
    }
  },
};
