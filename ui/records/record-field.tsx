'use client';
import { useContext } from 'react';
import { useFieldArray, useFormContext } from 'react-hook-form';
import type { Field } from '@/core/records/form-field';
import { FormContext } from './form-context';
import { PhotosField } from './photos-field';

const WIDE = new Set<Field['kind']>(['long', 'many', 'curve', 'photos', 'list']);
const NARROW = new Set<Field['kind']>(['number', 'consumption', 'money', 'yesno', 'date', 'month']);
const span = (f: Field) => (WIDE.has(f.kind) ? 'col-span-2 sm:col-span-6' : NARROW.has(f.kind) ? 'col-span-1 sm:col-span-2' : 'col-span-2 sm:col-span-3');

/** One field with its label, unit, hint and message. @param path where it stands in the form, row number included */
export function RecordField({ field, path }: { field: Field; path: string }) {
  if (field.kind === 'list') return <ListField field={field} path={path} />;
  if (field.kind === 'many') return <ManyField field={field} path={path} />;
  if (field.kind === 'photos') return <PhotosField path={path} className={span(field)} />;
  return <OneField field={field} path={path} />;
}

function Message({ id, path, hint }: { id: string; path: string; hint?: string | undefined }) {
  const { messages } = useContext(FormContext);
  const own = messages[path];
  if (own)
    return (
      <p id={`${id}-error`} role="alert" className="mt-1 text-[13px] font-semibold text-fault">
        {own}
      </p>
    );
  return hint ? (
    <p id={`${id}-hint`} className="mt-1 text-[13px] text-ink-2">
      {hint}
    </p>
  ) : null;
}

function OneField({ field, path }: { field: Exclude<Field, { kind: 'list' | 'many' | 'photos' }>; path: string }) {
  const { register, getValues, setValue } = useFormContext();
  const { messages, names, unit: consumption, idBase, onLeave } = useContext(FormContext);
  const id = `${idBase}-${path}`;
  const wrong = messages[path];
  const own = register(path, {
    onBlur: () =>
      onLeave?.(
        path,
        (p) => String(getValues(p) ?? ''),
        (p, v) => setValue(p, v),
      ),
  });
  const state = {
    ...own,
    id,
    className: 'field',
    'aria-invalid': wrong ? (true as const) : undefined,
    'aria-describedby': wrong ? `${id}-error` : field.hint ? `${id}-hint` : undefined,
  };
  const unit = field.kind === 'number' ? field.unit : field.kind === 'consumption' ? consumption : undefined;
  const figure = field.kind === 'number' || field.kind === 'money' || field.kind === 'consumption';
  return (
    <div className={`mb-3 min-w-0 ${span(field)}`}>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {field.label}
        {unit ? <span className="font-normal text-ink-2">, {unit}</span> : null}
      </label>
      {field.kind === 'choice' ? (
        <select {...state}>
          {field.required ? null : <option value="">Not noted</option>}
          {field.options.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      ) : field.kind === 'yesno' ? (
        <select {...state}>
          <option value="">Not noted</option>
          <option value="yes">Yes</option>
          <option value="no">No</option>
        </select>
      ) : field.kind === 'long' || field.kind === 'curve' ? (
        <textarea {...state} rows={field.kind === 'curve' ? 6 : 3} className={`field ${field.kind === 'curve' ? 'num' : ''}`} />
      ) : field.kind === 'ref' ? (
        <>
          <input {...state} list={`${id}-list`} autoComplete="off" />
          <datalist id={`${id}-list`}>
            {names[field.type]?.map((n) => (
              <option key={n.id} value={n.name} />
            ))}
          </datalist>
        </>
      ) : (
        <input
          {...state}
          className={`field ${figure ? 'num' : ''}`}
          type={field.kind === 'date' ? 'date' : 'text'}
          inputMode={figure ? 'decimal' : field.kind === 'phone' ? 'tel' : undefined}
          placeholder={field.kind === 'month' ? '2026-03' : undefined}
          autoComplete="off"
        />
      )}
      <Message id={id} path={path} hint={field.hint} />
    </div>
  );
}

function ManyField({ field, path }: { field: Extract<Field, { kind: 'many' }>; path: string }) {
  const { register } = useFormContext();
  const { messages, idBase } = useContext(FormContext);
  const id = `${idBase}-${path}`;
  return (
    <fieldset className={`mb-3 min-w-0 ${span(field)}`} aria-describedby={messages[path] ? `${id}-error` : undefined}>
      <legend className="mb-1 text-sm font-semibold">
        {field.label}
        {field.hint ? <span className="font-normal text-ink-2">. {field.hint}</span> : null}
      </legend>
      <div className="flex flex-wrap gap-x-4">
        {field.options.map(([value, label]) => (
          <label key={value} className="flex min-h-[44px] items-center gap-2 text-[14.5px]">
            <input type="checkbox" value={value} {...register(path)} aria-invalid={messages[path] ? true : undefined} className="size-5 accent-ink" />
            {label}
          </label>
        ))}
      </div>
      <Message id={id} path={path} />
    </fieldset>
  );
}

function ListField({ field, path }: { field: Extract<Field, { kind: 'list' }>; path: string }) {
  const { control } = useFormContext();
  const { messages, idBase } = useContext(FormContext);
  const { fields: rows, append, remove } = useFieldArray({ control, name: path });
  return (
    <div className="col-span-2 mb-3 min-w-0 sm:col-span-6">
      {rows.map((row, i) => (
        <fieldset key={row.id} className="mb-2 border-l-4 border-rule pl-3">
          <legend className="sr-only">
            {field.rowName} {i + 1}
          </legend>
          <div className="flex items-baseline gap-3">
            <p className="text-sm font-extrabold" aria-hidden="true">
              {field.rowName} {i + 1}
            </p>
            {rows.length > 1 || field.rowName === 'Step' ? (
              <button type="button" className="text-sm font-semibold text-shake underline" onClick={() => remove(i)}>
                Remove
              </button>
            ) : null}
          </div>
          <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-6">
            {field.row.map((f) => (
              <RecordField key={f.path} field={f} path={`${path}.${i}.${f.path}`} />
            ))}
          </div>
        </fieldset>
      ))}
      {messages[path] ? (
        <p id={`${idBase}-${path}-error`} role="alert" className="mb-2 text-[13px] font-semibold text-fault">
          {messages[path]}
        </p>
      ) : null}
      {rows.length < field.most ? (
        <button type="button" className="plate" onClick={() => append(field.blank)}>
          Add a {field.rowName.toLowerCase()}
        </button>
      ) : null}
    </div>
  );
}
