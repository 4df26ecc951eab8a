import { attemptForAct } from '../attempts/walk';
import { reference } from '../correctable-field';
import { markOf } from '../timing';
import type { KindFile } from './kind';

export const adapterFitted: KindFile<'adapter_fitted'> = {
  label: 'Adapter fitted',
  detail: ({ adapterId }, nameOf) => [adapterId ? nameOf('adapter', adapterId) : null],
  fields: [reference('adapter', 'adapterId', 'Adapter')],
  act: true,
  attempt: (w, e) => {
    if (e.onlySeen) return;
    const a = attemptForAct(w, e);
    a.adapterFitted ??= markOf(e);
    if (e.payload.adapterId) a.adapterId = e.payload.adapterId;
  },
};
