'use client';
import type { DefaultValues, FieldValues } from 'react-hook-form';
import { askWho } from '@/client/store/who';
import type * as z from '@/core/units/schema';
import { useCheckedForm } from '@/ui/forms/use-checked-form';

/** A form that lets somebody in: once it is taken, the application opens. @param to where */
export function useDoorForm<F extends FieldValues>(url: string, schema: z.ZodMiniType<F>, defaultValues: DefaultValues<F>, to = '/') {
  return useCheckedForm(url, schema, defaultValues, async () => {
    await askWho();
    location.assign(to);
  });
}
