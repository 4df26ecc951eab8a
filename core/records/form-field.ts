export type Option = [value: string, label: string];
type Base = { path: string; label: string; hint?: string };
/** One field of a record's form. `path` leads to it in the record, `outlets.0.ratedKW`. */
export type Field =
  | (Base & { kind: 'text' | 'long' | 'date' | 'month' | 'phone' })
  | (Base & { kind: 'number'; unit?: string })
  /** Kept as kWh for 100 km, typed in the unit that the person reads. */
  | (Base & { kind: 'consumption' })
  /** Money as a decimal string. */
  | (Base & { kind: 'money' })
  | (Base & { kind: 'yesno' })
  /** `numeric`: the value is a number. */
  | (Base & { kind: 'choice'; options: readonly Option[]; numeric?: true; required?: true })
  /** Several of a list; none ticked is "not noted". */
  | (Base & { kind: 'many'; options: readonly Option[]; required?: true })
  /** Another record, found or made by its name. `type` is any of the types': it says so itself, since they are made of forms. */
  | (Base & { kind: 'ref'; type: string; makes?: true })
  /** Charge curve: a line per point. */
  | (Base & { kind: 'curve' })
  /** Texts divided by commas. */
  | (Base & { kind: 'words' })
  | (Base & { kind: 'photos' })
  /** Rows of the same fields; their paths are inside a row. */
  | (Base & { kind: 'list'; row: readonly Field[]; rowName: string; most: number; blank: Record<string, unknown> });
export type FieldGroup = { head: string; fields: readonly Field[] };
