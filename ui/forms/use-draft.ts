'use client';
import { useCallback, useEffect, useState } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';

const read = (name: string): unknown => {
  try {
    return JSON.parse(sessionStorage.getItem(name) ?? 'null');
  } catch {
    return null;
  }
};
const write = (name: string, text: string | null): void => {
  try {
    if (text === null) sessionStorage.removeItem(name);
    else sessionStorage.setItem(name, text);
  } catch {
    // A browser that keeps nothing: what is typed lives as long as the page.
  }
};

/** Whoever signs out leaves nothing half typed behind. */
export function forgetDrafts(): void {
  try {
    sessionStorage.clear();
  } catch {
    // Nothing is kept, so nothing is left.
  }
}

/**
 * What is half typed outlives its page: a phone throws one away while its driver looks up the kWh in another application. In this tab alone.
 * @param name of the form and of whose it is @returns whether something was taken up, and how it is dropped: `true` empties the form, too
 */
export function useDraft<T extends FieldValues>(name: string, { reset, subscribe, getValues }: UseFormReturn<T>): [boolean, (afresh: boolean) => void] {
  const [taken, setTaken] = useState(false);
  useEffect(() => {
    const kept = read(name);
    const known = Object.keys(getValues());
    const texts =
      typeof kept === 'object' && kept !== null ? Object.entries(kept).filter(([key, value]) => known.includes(key) && typeof value === 'string') : [];
    if (texts.length > 0) {
      reset({ ...getValues(), ...Object.fromEntries(texts) }, { keepDefaultValues: true });
      setTaken(true);
    }
    return subscribe({
      formState: { values: true, isDirty: true },
      callback: ({ values, isDirty }) => write(name, isDirty ? JSON.stringify(values) : null),
    });
  }, [name, reset, subscribe, getValues]);
  const drop = useCallback(
    (afresh: boolean) => {
      if (afresh) reset();
      write(name, null);
      setTaken(false);
    },
    [name, reset],
  );
  return [taken, drop];
}
