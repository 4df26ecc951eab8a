import type { MileRecord } from './record-schema';
import type { RecordType } from './record-types';
import { TYPES } from './types/registry';
import type { Wishes } from './wishes';

/** Types that the garage lists. */
export type GarageType = { [T in RecordType]: (typeof TYPES)[T] extends { garage: object } ? T : never }[RecordType];
/** They, in the order of the garage. */
export const GARAGE_TYPES: readonly GarageType[] = (Object.keys(TYPES) as RecordType[])
  .filter((type): type is GarageType => 'garage' in TYPES[type])
  .sort((a, b) => TYPES[a].garage.place - TYPES[b].garage.place);

/** A record as a row of a list: what it is called, one line about it, and what needs attention. */
export type GarageRow = { id: string; name: string; line: string; heed: string | null; archived: boolean };

/** @param nameOf name of a record that this one refers to @param today local day */
export function garageRow(
  r: MileRecord<GarageType>,
  nameOf: (id: string | null) => string,
  today: string,
  consumption: Wishes['consumption'] = 'kWh/100 km',
): GarageRow {
  const type = TYPES[r.type];
  const said = type.garage.row(r.fields as never, { nameOf, today, consumption });
  return {
    id: r.id,
    name: said.name ?? type.name(r.fields as never),
    line: said.line.filter((x): x is string => typeof x === 'string' && x !== '').join(', '),
    heed: said.heed ?? null,
    archived: r.archived,
  };
}
