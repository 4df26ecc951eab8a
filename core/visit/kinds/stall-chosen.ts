import { endByAct, settleReadings } from '../attempts/walk';
import { reference, text } from '../correctable-field';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const stallChosen: KindFile<'stall_chosen'> = {
  label: ({ stallId }, nameOf) => `Stall ${nameOf('stall', stallId)} chosen`.replace('  ', ' '),
  detail: ({ connectorId }) => [connectorId],
  fields: [reference('stall', 'stallId', 'Stall'), text('connectorId', 'Connector')],
  seenByMany: true,
  act: true,
  attempt: (w, e) => {
    if (e.onlySeen) return;
    const { stallId, connectorId } = e.payload;
    if (w.stallId === null) {
      // Named after the first act there: the attempt is at it.
      if (w.current) w.current.stallId = stallId;
    } else if (stallId !== w.stallId) {
      endByAct(w, markOf(e), 'moved');
      settleReadings(w);
      w.plug = null;
      w.here = null;
      delete w.again;
      delete w.connectorId;
    }
    w.stallId = stallId;
    if (!connectorId) return;
    w.connectorId = connectorId;
    // Named, or changed, before the plug is in: it is that of the attempt that is open.
    if (w.current && (!w.current.connectorId || !w.plug)) w.current.connectorId = connectorId;
  },
};
