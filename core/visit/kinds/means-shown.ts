import { meansPad } from '../../records/means-kind';
import { attemptForAct, end } from '../attempts/walk';
import type { KindFile } from './kind';
import { MEANS_FIELDS, meansDetail, meansOn } from './means';

export const meansShown: KindFile<'means_shown'> = {
  label: ({ meansKind }) => meansPad(meansKind),
  detail: meansDetail,
  fields: MEANS_FIELDS,
  seenByMany: true,
  act: true,
  attempt: (w, e) => {
    if (e.onlySeen) return;
    const last = w.current?.refusals.at(-1);
    if (w.current && last && !w.current.proof) {
      const other = last.meansKind !== e.payload.meansKind || last.meansId !== e.payload.meansId;
      const shownSince = w.current.shows.some((s) => s.place > last.place);
      if (other && !shownSince) end(w, last, 'other_means');
    }
    attemptForAct(w, e).shows.push(meansOn(e));
  },
};
