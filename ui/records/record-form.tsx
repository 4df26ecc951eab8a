'use client';
import { useId, useRef, useState } from 'react';
import { FormProvider, useForm } from 'react-hook-form';
import type { Field } from '@/core/records/form-field';
import type { PlaceQuestion } from '@/core/records/place-questions';
import { type MileRecord, RECORDS, type RecordItem } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { TYPES } from '@/core/records/types/registry';
import { NO_WISHES } from '@/core/records/wishes';
import type { ConsumptionUnit } from '@/core/units/consumption';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormContext } from './form-context';
import { at, type Names, put, rowFromControls, rowToControls } from './form-fields';
import { QuestionPanel } from './question-panel';
import { RecordField } from './record-field';
import { useNewIds } from './use-new-ids';

export type FormType = Exclude<RecordType, 'tariff'>;
export type RecordFormProps = {
  type: FormType;
  /** The record to change; `null` for a new one. */
  record: MileRecord | null;
  /** What a new one starts from. */
  start?: Record<string, unknown>;
  names: Names;
  today: string;
  person: string;
  submitText: string;
  /** In which consumption is typed. */
  unit?: ConsumptionUnit;
  /** Keeps the record and those made with it. @returns what went wrong, by path or as one sentence; `null` when it is kept */
  onSave: (items: RecordItem[]) => Promise<{ fields?: Record<string, string>; form?: string } | null>;
  /** Slips that are asked about before it is kept. */
  ask?: ((fields: Record<string, unknown>) => Promise<PlaceQuestion[]>) | undefined;
  /** Fills in other fields when one was left, by path. */
  onLeave?: ((path: string, value: (path: string) => string, set: (path: string, value: string) => void) => void) | undefined;
  /** Takes a picture's bytes. @returns its SHA-256 */
  onPhoto?: ((file: Blob) => Promise<string>) | undefined;
  photoSource?: ((sha256: string) => string) | undefined;
};

/** The form of any record: one schema says what is allowed, here as at the server. */
export function RecordForm(props: RecordFormProps) {
  const { type, record, start, names, onSave, ask, submitText, unit = NO_WISHES.consumption } = props;
  const groups = TYPES[type].form;
  const flat = groups.flatMap((g) => g.fields);
  const base = record?.fields ?? start ?? {};
  const shown = rowToControls(flat, base, names, unit);
  const form = useForm<Record<string, unknown>>({ defaultValues: shown });
  const [messages, setMessages] = useState<Record<string, string>>({});
  const [wrong, setWrong] = useState<string | null>(null);
  const [questions, setQuestions] = useState<PlaceQuestion[]>([]);
  const [busy, setBusy] = useState(false);
  const newId = useNewIds();
  const answered = useRef(new Set<string>());
  const idBase = useId();
  const host = useRef<HTMLFormElement>(null);

  const show = (next: Record<string, string>) => {
    setMessages(next);
    const first = Object.keys(next)[0];
    if (first) requestAnimationFrame(() => host.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus());
  };

  const submit = form.handleSubmit(async (controls) => {
    setWrong(null);
    const typed = shaped(type, rowFromControls(flat, controls, names, unit), props);
    // What was not typed anew stays as it was, however it is rounded in another unit.
    for (const f of flat) if (f.kind === 'consumption' && at(controls, f.path) === at(shown, f.path)) put(typed, f.path, at(base, f.path) ?? null);
    const made: RecordItem[] = [];
    const bad: Record<string, string> = {};
    for (const f of flat) if (f.kind === 'ref') settleRef(f, typed, made, bad, newId);
    const parsed = RECORDS[type].safeParse({ ...(record?.fields ?? start), ...typed });
    if (!parsed.success)
      for (const issue of parsed.error.issues) {
        const path = issue.path.join('.');
        const ref = flat.find((f) => f.kind === 'ref' && f.path === path);
        bad[path] ??= ref && at(typed, path) === null && issue.code !== 'custom' ? `Which ${ref.label.toLowerCase()}?` : issue.message;
      }
    if (!parsed.success || Object.keys(bad).length > 0) {
      if (Object.keys(bad).some((path) => !flat.some((f) => f.path === path || path.startsWith(`${f.path}.`) || f.path.startsWith(`${path}.`))))
        setWrong(Object.values(bad).join(' '));
      return show(bad);
    }
    setMessages({});
    const open = ((await ask?.(parsed.data)) ?? []).filter((q) => !answered.current.has(q.text));
    setQuestions(open);
    if (open.length > 0) return;
    setBusy(true);
    const item = { type, id: record?.id ?? newId(type), baseRev: record?.rev ?? 0, archived: record?.archived ?? false, fields: parsed.data } as RecordItem;
    const problem = await onSave([...made, item]).finally(() => setBusy(false));
    if (problem?.fields) show(problem.fields);
    setWrong(problem?.form ?? null);
  });

  return (
    <FormProvider {...form}>
      <FormContext.Provider value={{ messages, names, unit, idBase, onLeave: props.onLeave, onPhoto: props.onPhoto, photoSource: props.photoSource }}>
        <form ref={host} onSubmit={submit} noValidate>
          {groups.map((g) => (
            <fieldset key={g.head} className="mb-5 min-w-0">
              <legend className="mb-3 w-full border-b-2 border-ink pb-1.5 text-[16px] font-extrabold tracking-tight">{g.head}</legend>
              <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-6">
                {g.fields.map((f) => (
                  <RecordField key={f.path} field={f} path={f.path} />
                ))}
              </div>
            </fieldset>
          ))}
          <FormAlert message={wrong} />
          <QuestionPanel
            questions={questions}
            onUse={(better) => {
              for (const [path, value] of Object.entries(better)) form.setValue(path, String(value));
              setQuestions([]);
            }}
            onRight={(q) => {
              answered.current.add(q.text);
              void submit();
            }}
          />
          <button type="submit" disabled={busy} className="plate plate-next !min-h-[48px] w-full text-[16px] sm:w-auto sm:!px-8">
            {submitText}
          </button>
        </form>
      </FormContext.Provider>
    </FormProvider>
  );
}

/** A name that is no record yet becomes one, kept together with this. */
function settleRef(
  f: Extract<Field, { kind: 'ref' }>,
  typed: Record<string, unknown>,
  made: RecordItem[],
  bad: Record<string, string>,
  newId: (part: string) => string,
): void {
  const value = at(typed, f.path);
  if (value === null || typeof value !== 'object') return;
  const name = (value as { make: string }).make;
  const twin = made.find((m) => m.type === f.type && 'name' in m.fields && m.fields.name.toLowerCase() === name.toLowerCase());
  const parsed = f.makes && !twin ? RECORDS[f.type as RecordType].safeParse({ name }) : null;
  if (parsed?.success) made.push({ type: f.type, id: newId(`in ${f.path}`), baseRev: 0, archived: false, fields: parsed.data } as RecordItem);
  else if (!twin) bad[f.path] = parsed?.error.issues[0]?.message ?? `No ${f.label.toLowerCase()} of that name`;
  put(typed, f.path, twin?.id ?? (parsed?.success ? made.at(-1)?.id : null));
}

/** What the flat form cannot say: a stall's state is one thing or nothing, and is seen today unless said otherwise. */
function shaped(type: FormType, fields: Record<string, unknown>, { today, person }: { today: string; person: string }): Record<string, unknown> {
  if (type !== 'stall') return fields;
  const state = fields.state as { is: string | null; kW: unknown; seenOn: string | null; by: string | null };
  return { ...fields, state: state.is === null ? null : { ...state, seenOn: state.seenOn ?? today, by: state.by || person } };
}
