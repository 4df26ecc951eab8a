'use client';
import { useEffect } from 'react';
import { useForm } from 'react-hook-form';
import { askWho } from '@/client/store/who';
import { type SignUpForm as Form, fieldMessages, signUpForm } from '@/core/records/account-forms';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { postJson } from '@/ui/forms/post-json';

const FIELDS: { name: keyof Form; label: string; type: string; autoComplete: string; hint?: string }[] = [
  { name: 'name', label: 'Your name', type: 'text', autoComplete: 'name' },
  { name: 'householdName', label: 'Household', type: 'text', autoComplete: 'organization', hint: 'A family, a workshop, a small fleet' },
  { name: 'email', label: 'E-mail address', type: 'email', autoComplete: 'username' },
  { name: 'password', label: 'Password', type: 'password', autoComplete: 'new-password', hint: 'At least 10 characters' },
  { name: 'currency', label: 'Currency', type: 'text', autoComplete: 'off', hint: 'Three letters, such as EUR' },
  { name: 'zone', label: 'Time zone', type: 'text', autoComplete: 'off' },
];

export function SignUpForm() {
  const {
    register,
    handleSubmit,
    setError,
    setValue,
    formState: { errors, isSubmitting },
  } = useForm<Form>({ defaultValues: { name: '', householdName: '', email: '', password: '', currency: 'EUR', zone: 'UTC' } });
  useEffect(() => setValue('zone', Intl.DateTimeFormat().resolvedOptions().timeZone), [setValue]);
  const submit = handleSubmit(async (values) => {
    const form = signUpForm.safeParse(values);
    if (!form.success) {
      for (const [field, message] of Object.entries(fieldMessages(form.error))) setError(field as keyof Form, { message });
      return;
    }
    const answer = await postJson('/api/v1/household', form.data);
    if (answer.ok) {
      await askWho();
      return location.assign('/ledger');
    }
    for (const [field, message] of Object.entries(answer.fields)) setError(field as keyof Form, { message });
    if (answer.error) setError('root', { message: answer.error });
  });
  return (
    <form onSubmit={submit} noValidate className="mt-4">
      {FIELDS.map((f) => (
        <FormField key={f.name} id={f.name} label={f.label} hint={f.hint} error={errors[f.name]?.message}>
          <input type={f.type} autoComplete={f.autoComplete} {...register(f.name)} {...fieldState(f.name, errors[f.name]?.message)} />
        </FormField>
      ))}
      {errors.root?.message ? (
        <p role="alert" className="mb-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-sm font-semibold">
          {errors.root.message}
        </p>
      ) : null}
      <button type="submit" className="plate plate-next !min-h-[52px] w-full text-[17px]" disabled={isSubmitting}>
        Make the account
      </button>
    </form>
  );
}
