'use client';
import * as ToggleGroup from '@radix-ui/react-toggle-group';
import { useEffect, useState } from 'react';

/** One of a few, all in sight. @param value the one that holds, `null` while it is not known yet */
export function OneOf<V extends string>({
  label,
  value,
  choices,
  onChoose,
}: {
  label: string;
  value: V | null;
  choices: readonly (readonly [V, string])[];
  onChoose: (value: V) => void;
}) {
  // Moving by arrows comes with a style of its own, which no page may carry in its text: the policy refuses it there.
  const [arrows, setArrows] = useState(false);
  useEffect(() => setArrows(true), []);
  return (
    <fieldset className="mt-4">
      <legend className="mb-1.5 text-sm font-semibold">{label}</legend>
      <ToggleGroup.Root
        type="single"
        rovingFocus={arrows}
        aria-label={label}
        value={value ?? ''}
        // Pressed again it stays: one of them always holds.
        onValueChange={(v) => v && onChoose(v as V)}
        className="flex flex-wrap gap-2"
      >
        {choices.map(([v, text]) => (
          <ToggleGroup.Item key={v} value={v} className="plate !min-h-[44px]">
            {text}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </fieldset>
  );
}
