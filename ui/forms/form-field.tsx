import type { ReactNode } from 'react';

/** A label, its control and its message beside it. */
export function FormField({ id, label, error, hint, children }: { id: string; label: string; error?: string | undefined; hint?: string; children: ReactNode }) {
  return (
    <div className="mb-3">
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {label}
      </label>
      {children}
      {hint && !error ? <p className="mt-1 text-[13px] text-ink-2">{hint}</p> : null}
      {error ? (
        <p id={`${id}-error`} role="alert" className="mt-1 text-[13px] font-semibold text-fault">
          {error}
        </p>
      ) : null}
    </div>
  );
}
/** Attributes that tie a control to its message. */
export const fieldState = (id: string, error: string | undefined) => ({
  id,
  className: 'field',
  'aria-invalid': error ? true : undefined,
  'aria-describedby': error ? `${id}-error` : undefined,
});
