import { end, open } from '../attempts/walk';
import { text } from '../correctable-field';
import { markOf } from '../timing';
import type { KindFile } from './kind';

/** A wet double touch on one phone: the first is kept. */
const DOUBLE_TOUCH_MS = 2000;

export const plugged: KindFile<'plugged'> = {
  label: 'Plugged in',
  detail: ({ connectorId }) => [connectorId],
  fields: [text('connectorId', 'Connector')],
  seenByMany: true,
  act: true,
  attempt: (w, e) => {
    if (e.onlySeen) return;
    const at = markOf(e);
    if (w.plug && w.plug.deviceId === at.deviceId && at.t - w.plug.t <= DOUBLE_TOUCH_MS) return;
    if (w.current && (w.plug || w.current.paused)) end(w, at, w.current.paused ? 'act_after_power' : 'replug');
    const a = w.current ?? open(w, at);
    a.plugged = at;
    if (e.payload.connectorId) a.connectorId = e.payload.connectorId;
    w.plug = at;
  },
};
