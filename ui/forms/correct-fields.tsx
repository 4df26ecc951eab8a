'use client';
import type { DistanceUnit } from '@/core/units/distance';
import type { AttemptChoice } from '@/core/visit/billed';
import type { CorrectableField } from '@/core/visit/correctable-field';
import { AttemptsBilled } from './attempts-billed';
import { FormField, fieldState } from './form-field';

export type RecordChoices = Partial<Record<'site' | 'stall' | 'car' | 'adapter' | 'means' | 'person', readonly { id: string; name: string }[]>> & {
  /** Of the visit, for what names attempts. */
  attempts?: readonly AttemptChoice[];
};

/** The fields of an event as they can be corrected. Empty is: not read. */
export function CorrectFields({
  fields,
  values,
  problems,
  choices,
  distance,
  onChange,
}: {
  fields: readonly CorrectableField[];
  values: Readonly<Record<string, string>>;
  problems: Readonly<Record<string, string>>;
  choices: RecordChoices;
  /** In what distances are typed. */
  distance: DistanceUnit;
  onChange: (values: Record<string, string>) => void;
}) {
  return fields.map((f) => {
    const id = `correct-${f.field.replaceAll('.', '-')}`;
    const stall = f.stallId ? choices.stall?.find((s) => s.id === f.stallId)?.name : undefined;
    const value = values[f.field] ?? '';
    const set = (text: string) => onChange({ ...values, [f.field]: text });
    if (f.is === 'attempts')
      // A visit of one attempt leaves nothing to choose.
      return (choices.attempts?.length ?? 0) < 2 ? null : (
        <AttemptsBilled key={f.field} attempts={choices.attempts ?? []} named={value.split(' ').filter(Boolean)} onChange={(named) => set(named.join(' '))} />
      );
    const options =
      f.is === 'choice'
        ? f.options
        : f.is === 'yes_no'
          ? [['true', 'Yes'] as const, ['false', 'No'] as const]
          : f.is === 'ref'
            ? (choices[f.type] ?? []).map((r) => [r.id, r.name] as const)
            : null;
    return (
      <FormField
        key={f.field}
        id={id}
        label={stall ? `Stall ${stall}${f.is === 'number' ? ` ${f.label}` : ''}` : f.is === 'distance' ? `${f.label}, ${distance}` : f.label}
        error={problems[f.field]}
      >
        {options ? (
          <select {...fieldState(id, problems[f.field])} value={value} onChange={(e) => set(e.target.value)}>
            <option value="">not read</option>
            {value !== '' && !options.some(([v]) => v === value) ? <option value={value}>{f.is === 'ref' ? 'archived' : value}</option> : null}
            {options.map(([v, label]) => (
              <option key={v} value={v}>
                {label}
              </option>
            ))}
          </select>
        ) : (
          <input
            {...fieldState(id, problems[f.field])}
            inputMode={f.is === 'text' ? 'text' : 'decimal'}
            autoComplete="off"
            value={value}
            onChange={(e) => set(e.target.value)}
          />
        )}
      </FormField>
    );
  });
}
