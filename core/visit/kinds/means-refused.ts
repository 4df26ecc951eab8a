import { FAULTS, faultLabel } from '../../faults/fault-list';
import { choice } from '../correctable-field';
import type { KindFile } from './kind';
import { MEANS_FIELDS, meansDetail, meansOn } from './means';

export const meansRefused: KindFile<'means_refused'> = {
  label: ({ fault }) => (fault ? faultLabel(fault) : 'Refused'),
  detail: meansDetail,
  fields: [
    ...MEANS_FIELDS,
    choice(
      'fault',
      'What it said',
      FAULTS.filter((f) => f.refusal).map((f) => [f.code, f.label] as const),
    ),
  ],
  seenByMany: true,
  attempt: (w, e) => {
    if (e.onlySeen) return;
    (w.current ?? w.here)?.refusals.push({ ...meansOn(e), ...(e.payload.fault ? { fault: e.payload.fault } : {}) });
  },
};
