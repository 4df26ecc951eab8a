import type { Position } from '@/core/records/place-questions';
import type { MileRecord } from '@/core/records/record-schema';

/** Where the other sites are. */
export const positionsOf = (sites: readonly MileRecord<'site'>[], except?: string): Position[] =>
  sites.flatMap((s) =>
    s.id !== except && s.fields.latitude !== null && s.fields.longitude !== null ? [{ latitude: s.fields.latitude, longitude: s.fields.longitude }] : [],
  );
