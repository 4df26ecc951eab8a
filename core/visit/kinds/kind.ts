import type { DistanceUnit } from '../../units/distance';
import type { Walk } from '../attempts/walk';
import type { CorrectableField } from '../correctable-field';
import type { Kind, Payload } from '../payloads';
import type { Placed } from '../timeline/placed';

export type PlacedOf<K extends Kind> = Extract<Placed, { kind: K }>;

/** What an event refers to, in words; empty where it is not known. */
export type NameOf = (type: 'site' | 'stall' | 'car' | 'adapter' | 'means' | 'person', id: string) => string;

/** Everything about one kind of event but the schema of its payload. */
export type KindFile<K extends Kind> = {
  /** What it is called on the tape and in lists. */
  label: string | ((p: Payload<K>, nameOf: NameOf) => string);
  /** What it holds, as parts of a line; those without a word are left out. */
  detail?: (
    p: Payload<K>,
    nameOf: NameOf,
    attempts: (eventIds: readonly string[]) => string | null,
    distance: DistanceUnit,
  ) => readonly (string | null | undefined)[];
  /** What can be corrected besides its time. What is not listed is taken back and recorded anew. */
  fields?: readonly CorrectableField[] | ((p: Payload<K>) => readonly CorrectableField[]);
  /** Two people can see it at one moment. */
  seenByMany?: true;
  /** May come long after the visit, and says nothing of its length. */
  afterwards?: true;
  /** An act of the driver at the stall: the tape breaks there. */
  act?: true;
  /** What it does to the attempts. */
  attempt?: (w: Walk, e: PlacedOf<K>) => void;
};

/** A figure with its unit, `null` where it was not read. */
export const unit = (value: number | string | undefined, text: string): string | null => (value === undefined ? null : `${value} ${text}`);
