'use client';
import { type DefaultValues, type FieldValues, type Path, useForm } from 'react-hook-form';
import type * as z from 'zod';
import { askWho } from '@/client/store/who';
import { fieldMessages } from '@/core/records/account-forms';
import { postJson } from '@/ui/forms/post-json';

/**
 * A form that lets somebody in: checked by the schema the server uses, posted as JSON, each message at its field;
 * once let in, the ledger is opened.
 */
export function useDoorForm<F extends FieldValues>(url: string, schema: z.ZodType<F>, defaultValues: DefaultValues<F>) {
  const form = useForm<F>({ defaultValues });
  const tell = (messages: Record<string, string>) => {
    for (const [field, message] of Object.entries(messages)) form.setError(field as Path<F>, { message });
  };
  const submit = form.handleSubmit(async (values) => {
    const checked = schema.safeParse(values);
    if (!checked.success) return tell(fieldMessages(checked.error));
    const answer = await postJson(url, checked.data);
    if (answer.ok) {
      await askWho();
      return location.assign('/ledger');
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
