'use client';
import { type ComponentProps, useState } from 'react';
import { fieldState } from './form-field';

/** A password, hidden until its person wants to see what was typed. @param id of the field @param error its message */
export function PasswordInput({ id, error, ...input }: { id: string; error: string | undefined } & Omit<ComponentProps<'input'>, 'id' | 'type'>) {
  const [shown, setShown] = useState(false);
  return (
    <div className="flex gap-2">
      <input type={shown ? 'text' : 'password'} autoCapitalize="none" spellCheck={false} {...input} {...fieldState(id, error)} />
      <button type="button" className="plate shrink-0" aria-pressed={shown} aria-controls={id} onClick={() => setShown(!shown)}>
        {shown ? 'Hide' : 'Show'}
      </button>
    </div>
  );
}
