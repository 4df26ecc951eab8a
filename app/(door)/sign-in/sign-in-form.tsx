'use client';
import { useForm } from 'react-hook-form';
import { askWho } from '@/client/store/who';
import { type SignInForm as Form, fieldMessages, signInForm } from '@/core/records/account-forms';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { postJson } from '@/ui/forms/post-json';

export function SignInForm() {
  const {
    register,
    handleSubmit,
    setError,
    formState: { errors, isSubmitting },
  } = useForm<Form>({ defaultValues: { email: '', password: '' } });
  const submit = handleSubmit(async (values) => {
    const form = signInForm.safeParse(values);
    if (!form.success) {
      for (const [field, message] of Object.entries(fieldMessages(form.error))) setError(field as keyof Form, { message });
      return;
    }
    const answer = await postJson('/api/v1/session', form.data);
    if (answer.ok) {
      await askWho();
      return location.assign('/ledger');
    }
    for (const [field, message] of Object.entries(answer.fields)) setError(field as keyof Form, { message });
    if (answer.error) setError('root', { message: answer.error });
  });
  return (
    <form onSubmit={submit} noValidate className="mt-4">
      <FormField id="email" label="E-mail address" error={errors.email?.message}>
        <input type="email" autoComplete="username" {...register('email')} {...fieldState('email', errors.email?.message)} />
      </FormField>
      <FormField id="password" label="Password" error={errors.password?.message}>
        <input type="password" autoComplete="current-password" {...register('password')} {...fieldState('password', errors.password?.message)} />
      </FormField>
      {errors.root?.message ? (
        <p role="alert" className="mb-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-sm font-semibold">
          {errors.root.message}
        </p>
      ) : null}
      <button type="submit" className="plate !min-h-[52px] w-full text-[17px]" disabled={isSubmitting}>
        Sign in
      </button>
    </form>
  );
}
