export type Options = readonly (readonly [value: string, label: string])[];
/** One field of a payload as a person changes it. `decimal`: kept as a decimal string; `distance`: kept in km, typed as its reader reads it; `ref`: the id of a record of that type; `attempts`: events of attempts, as text with spaces between. */
export type CorrectableField = { field: string; label: string /** The stall it is about. */; stallId?: string } & (
  | { is: 'number' | 'distance' | 'decimal' | 'text' | 'yes_no' | 'attempts' }
  | { is: 'choice'; options: Options }
  | { is: 'ref'; type: 'site' | 'stall' | 'car' | 'adapter' | 'means' | 'person' }
);

export const number = (field: string, label: string): CorrectableField => ({ field, label, is: 'number' });
export const distance = (field: string, label: string): CorrectableField => ({ field, label, is: 'distance' });
export const decimal = (field: string, label: string): CorrectableField => ({ field, label, is: 'decimal' });
export const text = (field: string, label: string): CorrectableField => ({ field, label, is: 'text' });
export const yesNo = (field: string, label: string): CorrectableField => ({ field, label, is: 'yes_no' });
export const choice = (field: string, label: string, options: Options): CorrectableField => ({ field, label, is: 'choice', options });
export const reference = (type: 'site' | 'stall' | 'car' | 'adapter' | 'means' | 'person', field: string, label: string): CorrectableField => ({
  field,
  label,
  is: 'ref',
  type,
});
/** The choices of a list of labels. */
export const optionsOf = (labels: Readonly<Record<string, string>>): Options => Object.entries(labels);
