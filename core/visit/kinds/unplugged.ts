import { endByAct } from '../attempts/walk';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const unplugged: KindFile<'unplugged'> = {
  label: 'Unplugged',
  seenByMany: true,
  attempt: (w, e) => {
    if (e.onlySeen) return;
    const at = markOf(e);
    w.plug = null;
    if (w.current) {
      w.current.unplugged = at;
      endByAct(w, at, 'unplugged');
    } else if (w.here) w.here.unplugged ??= at;
  },
};
