'use client';
import * as ToggleGroup from '@radix-ui/react-toggle-group';
import { type ReactNode, useEffect, useState } from 'react';

/** A choice: its value, what it shows, and what it is called where that says less. */
type Choice<V extends string> = readonly [value: V, shown: ReactNode, called?: string];
/** `null` and `mayBeNone`: pressed again the one that holds does so no more. */
type Choosing<V extends string> = { mayBeNone?: never; onChoose: (value: V) => void } | { mayBeNone: true; onChoose: (value: V | null) => void };

/** One of a few, all in sight. @param value the one that holds, `null` for none or while it is not known yet @param look of one that is no plate */
export function OneOf<V extends string>({
  label,
  headed = true,
  value,
  choices,
  disabled = false,
  mayBeNone,
  onChoose,
  look = () => 'plate !min-h-[44px] max-w-full wrap-anywhere',
  row = 'flex flex-wrap gap-2',
  children,
}: {
  label: string;
  /** Whether the label is seen, or only heard. */
  headed?: boolean;
  value: V | null;
  choices: readonly Choice<V>[];
  disabled?: boolean;
  look?: (chosen: boolean) => string;
  row?: string;
  /** What stands in the row after the choices. */
  children?: ReactNode;
} & Choosing<V>) {
  // Moving by arrows comes with a style of its own, which no page may carry in its text: the policy refuses it there.
  const [arrows, setArrows] = useState(false);
  useEffect(() => setArrows(true), []);
  const group = (
    <ToggleGroup.Root
      type="single"
      rovingFocus={arrows}
      aria-label={label}
      disabled={disabled}
      value={value ?? ''}
      onValueChange={(v) => {
        if (v) onChoose(v as V);
        else if (mayBeNone) onChoose(null);
      }}
      className={row}
    >
      {choices.map(([v, shown, called]) => (
        <ToggleGroup.Item key={v} value={v} className={look(v === value)} {...(called ? { 'aria-label': called } : {})}>
          {shown}
        </ToggleGroup.Item>
      ))}
      {children}
    </ToggleGroup.Root>
  );
  if (!headed) return group;
  return (
    <fieldset className="mt-4">
      <legend className="mb-1.5 text-sm font-semibold">{label}</legend>
      {group}
    </fieldset>
  );
}
