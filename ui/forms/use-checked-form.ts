'use client';
import { type DefaultValues, type FieldValues, type Path, useForm } from 'react-hook-form';
import { checkForm } from '@/core/records/account-forms';
import type * as z from '@/core/units/schema';
import { postJson } from './post-json';

/**
 * A form checked by the schema the server uses and posted as JSON, each message at its field.
 * @param onDone what follows once the server took it, with its answer
 * @param more what goes along without being typed
 */
export function useCheckedForm<F extends FieldValues>(
  url: string,
  schema: z.ZodMiniType<F>,
  defaultValues: DefaultValues<F>,
  onDone: (answer: unknown) => unknown,
  method: 'POST' | 'PUT' | 'DELETE' = 'POST',
  more: Record<string, unknown> = {},
) {
  const form = useForm<F>({ defaultValues });
  const tell = (messages: Record<string, string>) => {
    for (const [field, message] of Object.entries(messages)) form.setError(field as Path<F>, { message });
  };
  const submit = form.handleSubmit(async (values) => {
    const checked = checkForm(schema, values);
    if (!checked.ok) return tell(checked.fields);
    const answer = await postJson(url, { ...checked.data, ...more }, method);
    if (answer.ok) {
      form.reset();
      await onDone(answer.body);
      return;
    }
    tell(answer.fields);
    if (answer.error) form.setError('root', { message: answer.error });
  });
  const { errors } = form.formState;
  return {
    register: form.register,
    setValue: form.setValue,
    submit,
    busy: form.formState.isSubmitting,
    message: (field: keyof F) => errors[field]?.message as string | undefined,
    rootMessage: errors.root?.message,
  };
}
