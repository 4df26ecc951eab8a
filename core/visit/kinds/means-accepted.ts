import type { KindFile } from './kind';
import { MEANS_FIELDS, meansDetail, meansOn } from './means';

export const meansAccepted: KindFile<'means_accepted'> = {
  label: 'Accepted',
  detail: meansDetail,
  fields: MEANS_FIELDS,
  seenByMany: true,
  attempt: (w, e) => {
    if (w.current) w.current.accepted ??= meansOn(e);
  },
};
