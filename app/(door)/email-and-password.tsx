'use client';
import type { UseFormRegisterReturn } from 'react-hook-form';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { PasswordInput } from '@/ui/forms/password-input';

/** What an account is opened or made by. @param made the password is one that is being set */
export function EmailAndPassword({
  email,
  password,
  message,
  made = false,
}: {
  email: UseFormRegisterReturn;
  password: UseFormRegisterReturn;
  message: (field: 'email' | 'password') => string | undefined;
  made?: boolean;
}) {
  return (
    <>
      <FormField id="email" label="E-mail address" error={message('email')}>
        <input type="email" autoComplete="username" {...email} {...fieldState('email', message('email'))} />
      </FormField>
      <FormField id="password" label="Password" error={message('password')} {...(made ? { hint: 'At least 10 characters' } : {})}>
        <PasswordInput id="password" error={message('password')} autoComplete={made ? 'new-password' : 'current-password'} {...password} />
      </FormField>
    </>
  );
}
