'use client';
import { useEffect } from 'react';
import { type SignUpForm as Form, signUpForm } from '@/core/records/account-forms';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { PasswordInput } from '@/ui/forms/password-input';
import { useDoorForm } from '../use-door-form';

const FIELDS: { name: keyof Form; label: string; type: string; autoComplete: string; hint?: string }[] = [
  { name: 'name', label: 'Your name', type: 'text', autoComplete: 'name' },
  { name: 'householdName', label: 'Household', type: 'text', autoComplete: 'organization', hint: 'A family, a workshop, a small fleet' },
  { name: 'email', label: 'E-mail address', type: 'email', autoComplete: 'username' },
  { name: 'password', label: 'Password', type: 'password', autoComplete: 'new-password', hint: 'At least 10 characters' },
  { name: 'currency', label: 'Currency', type: 'text', autoComplete: 'off', hint: 'Three letters, such as EUR' },
  { name: 'zone', label: 'Time zone', type: 'text', autoComplete: 'off' },
];

export function SignUpForm() {
  const { register, setValue, submit, busy, message, rootMessage } = useDoorForm('/api/v1/household', signUpForm, {
    name: '',
    householdName: '',
    email: '',
    password: '',
    currency: 'EUR',
    zone: 'UTC',
  });
  useEffect(() => setValue('zone', Intl.DateTimeFormat().resolvedOptions().timeZone), [setValue]);
  return (
    <form onSubmit={submit} noValidate className="mt-4">
      {FIELDS.map((f) => (
        <FormField key={f.name} id={f.name} label={f.label} hint={f.hint} error={message(f.name)}>
          {f.type === 'password' ? (
            <PasswordInput id={f.name} error={message(f.name)} autoComplete={f.autoComplete} {...register(f.name)} />
          ) : (
            <input type={f.type} autoComplete={f.autoComplete} {...register(f.name)} {...fieldState(f.name, message(f.name))} />
          )}
        </FormField>
      ))}
      <FormAlert message={rootMessage} />
      <button type="submit" className="plate plate-next !min-h-[52px] w-full text-[17px]" disabled={busy}>
        Make the account
      </button>
    </form>
  );
}
