'use client';
import { useEffect, useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import { CONNECTORS } from '@/core/records/connector';
import type { PlaceQuestion } from '@/core/records/place-questions';
import { RECORDS, type RecordItem } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { cabinetsFor, stallSeries } from '@/core/records/stall-series';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { whereIAm } from '@/ui/places/where-i-am';
import { fillingZone, type ZoneAt } from './filling-zone';
import { type Names, typedNumber } from './form-fields';
import { QuestionPanel } from './question-panel';
import { useNewIds } from './use-new-ids';

type Form = {
  name: string;
  network: string;
  stalls: string;
  connector: string;
  kW: string;
  onEach: string;
  sharing: string;
  cabinetKW: string;
  latitude: string;
  longitude: string;
  zone: string;
};
const FIELD_OF: Record<string, keyof Form> = {
  name: 'name',
  latitude: 'latitude',
  longitude: 'longitude',
  zone: 'zone',
  outlets: 'kW',
  cabinetKW: 'cabinetKW',
  sharing: 'sharing',
  cabinet: 'onEach',
};

/**
 * A site with its stalls from the sign on the post, in one go: what differs between stalls is changed afterwards.
 * @param zoneAt time zone of a position, `null` at sea
 */
export function NewSiteForm({
  names,
  zone,
  zoneAt,
  ask,
  onSave,
}: {
  names: Names;
  zone: string;
  zoneAt: ZoneAt;
  /** Slips that are asked about before it is kept. */
  ask: (fields: Record<string, unknown>) => Promise<PlaceQuestion[]>;
  /** Keeps the records in the order in which they refer to each other. @returns what went wrong */
  onSave: (items: RecordItem[], siteId: string) => Promise<string | null>;
}) {
  const {
    register,
    handleSubmit,
    setError,
    setFocus,
    setValue,
    getValues,
    watch,
    formState: { errors, isSubmitting },
  } = useForm<Form>({
    defaultValues: {
      name: '',
      network: '',
      stalls: '',
      connector: 'CCS2',
      kW: '',
      onEach: '0',
      sharing: 'shared',
      cabinetKW: '',
      latitude: '',
      longitude: '',
      zone,
    },
  });
  const [wrong, setWrong] = useState<string | null>(null);
  const [questions, setQuestions] = useState<PlaceQuestion[]>([]);
  const newId = useNewIds();
  const answered = useRef(new Set<string>());
  const onEach = Number(watch('onEach'));
  const series = stallSeries(watch('stalls'));
  // The page is opened to type: the first field is ready for it.
  useEffect(() => setFocus('name'), [setFocus]);
  const [filling] = useState(() => fillingZone(zoneAt, null));
  const fillZone = () =>
    filling({
      latitude: () => getValues('latitude'),
      longitude: () => getValues('longitude'),
      zone: () => getValues('zone'),
      setZone: (found) => setValue('zone', found),
    });

  const submit = handleSubmit(async (form) => {
    setWrong(null);
    const items: RecordItem[] = [];
    let bad = false;
    const fail = (field: keyof Form, message: string) => {
      if (!bad) setError(field, { message }, { shouldFocus: true });
      else setError(field, { message });
      bad = true;
    };
    const add = (type: RecordType, id: string, fields: unknown, only?: keyof Form) => {
      const parsed = RECORDS[type].safeParse(fields);
      if (parsed.success) return void items.push({ type, id, baseRev: 0, archived: false, fields: parsed.data } as RecordItem);
      for (const issue of parsed.error.issues) fail(only ?? FIELD_OF[String(issue.path[0])] ?? 'name', issue.message);
    };
    const number = (text: string) => typedNumber(text) ?? (text.trim() === '' ? null : Number.NaN);
    const known = names.network?.find((n) => n.name.toLowerCase() === form.network.trim().toLowerCase());
    const [networkId, siteId] = [known?.id ?? newId('network'), newId('site')];
    add('site', siteId, { networkId, name: form.name, zone: form.zone.trim(), latitude: number(form.latitude), longitude: number(form.longitude) });
    if (!known) add('network', networkId, { name: form.network }, 'network');
    const stalls = stallSeries(form.stalls);
    if (!stalls.ok) fail('stalls', stalls.reason);
    else {
      const cabinets = cabinetsFor(stalls.names.length, onEach < 0 ? stalls.names.length : onEach);
      for (const [i, name] of stalls.names.entries()) {
        if (bad && i > 0) break;
        const cabinet = cabinets[i];
        add('stall', newId(`stall ${i}`), {
          siteId,
          name,
          outlets: [{ connector: form.connector, ratedKW: number(form.kW) }],
          ...(cabinet ? { cabinet, sharing: form.sharing, cabinetKW: number(form.cabinetKW) } : onEach === 1 ? { sharing: 'own' } : {}),
        });
      }
    }
    if (bad) return;
    const site = items.find((i) => i.type === 'site');
    const open = site ? (await ask(site.fields)).filter((q) => !answered.current.has(q.text)) : [];
    setQuestions(open);
    if (open.length > 0) return;
    // A network made with the site comes before it.
    items.sort((a, b) => Number(b.type === 'network') - Number(a.type === 'network'));
    setWrong(await onSave(items, siteId));
  });

  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-6">
        <div className="col-span-2 sm:col-span-3">
          <FormField id="name" label="Site" error={errors.name?.message}>
            <input {...register('name')} {...fieldState('name', errors.name?.message)} autoComplete="off" />
          </FormField>
        </div>
        <div className="col-span-2 sm:col-span-3">
          <FormField id="network" label="Network" error={errors.network?.message}>
            <input {...register('network')} {...fieldState('network', errors.network?.message)} list="known-networks" autoComplete="off" />
          </FormField>
          <datalist id="known-networks">
            {names.network?.map((n) => (
              <option key={n.id} value={n.name} />
            ))}
          </datalist>
        </div>
        <div className="col-span-2">
          <FormField
            id="stalls"
            label="Stalls"
            error={errors.stalls?.message}
            hint={
              series.ok && series.names.length > 0
                ? `${series.names.length}: ${series.names.slice(0, 8).join(', ')}${series.names.length > 8 ? ' …' : ''}`
                : 'Numbers or names: 1-4, or North, South'
            }
          >
            <input {...register('stalls')} {...fieldState('stalls', errors.stalls?.message)} autoComplete="off" />
          </FormField>
        </div>
        <div className="sm:col-span-2">
          <FormField id="connector" label="Connector" error={errors.connector?.message}>
            <select {...register('connector')} {...fieldState('connector', errors.connector?.message)}>
              {CONNECTORS.map((c) => (
                <option key={c}>{c}</option>
              ))}
            </select>
          </FormField>
        </div>
        <div className="sm:col-span-2">
          <FormField id="kW" label="kW on the plate" error={errors.kW?.message}>
            <input {...register('kW')} {...fieldState('kW', errors.kW?.message)} className="field num" inputMode="decimal" autoComplete="off" />
          </FormField>
        </div>
        <div className="sm:col-span-2">
          <FormField id="onEach" label="On one cabinet" error={errors.onEach?.message}>
            <select {...register('onEach')} {...fieldState('onEach', errors.onEach?.message)}>
              <option value="0">Not noted</option>
              <option value="1">One stall each</option>
              <option value="2">Two stalls</option>
              <option value="3">Three stalls</option>
              <option value="4">Four stalls</option>
              <option value="-1">All of them</option>
            </select>
          </FormField>
        </div>
        {onEach > 1 || onEach < 0 ? (
          <>
            <div className="sm:col-span-2">
              <FormField id="sharing" label="They" error={errors.sharing?.message}>
                <select {...register('sharing')} {...fieldState('sharing', errors.sharing?.message)}>
                  <option value="shared">Share its power</option>
                  <option value="one at a time">Charge one car at a time</option>
                </select>
              </FormField>
            </div>
            <div className="sm:col-span-2">
              <FormField id="cabinetKW" label="kW of the cabinet" error={errors.cabinetKW?.message} hint="If the sign says it">
                <input
                  {...register('cabinetKW')}
                  {...fieldState('cabinetKW', errors.cabinetKW?.message)}
                  className="field num"
                  inputMode="decimal"
                  autoComplete="off"
                />
              </FormField>
            </div>
          </>
        ) : null}
      </div>
      <div className="mt-2 border-t border-rule pt-3">
        <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-6">
          <div className="sm:col-span-2">
            <FormField id="latitude" label="Latitude" error={errors.latitude?.message} hint="Degrees; can be left out">
              <input
                {...register('latitude', { onBlur: () => void fillZone() })}
                {...fieldState('latitude', errors.latitude?.message)}
                className="field num"
                inputMode="decimal"
                autoComplete="off"
              />
            </FormField>
          </div>
          <div className="sm:col-span-2">
            <FormField id="longitude" label="Longitude" error={errors.longitude?.message}>
              <input
                {...register('longitude', { onBlur: () => void fillZone() })}
                {...fieldState('longitude', errors.longitude?.message)}
                className="field num"
                inputMode="decimal"
                autoComplete="off"
              />
            </FormField>
          </div>
          <div className="col-span-2">
            <FormField id="zone" label="Time zone" error={errors.zone?.message} hint="Filled in from the coordinates">
              <input {...register('zone')} {...fieldState('zone', errors.zone?.message)} autoComplete="off" />
            </FormField>
          </div>
        </div>
        <button
          type="button"
          className="plate mb-3"
          onClick={() =>
            void whereIAm().then(
              (p) => {
                setValue('latitude', p.latitude.toFixed(5));
                setValue('longitude', p.longitude.toFixed(5));
                void fillZone();
              },
              (e: Error) => setWrong(e.message),
            )
          }
        >
          I am there now
        </button>
      </div>
      <QuestionPanel
        questions={questions}
        onUse={(better) => {
          for (const field of ['latitude', 'longitude', 'zone'] as const) if (better[field] !== undefined) setValue(field, String(better[field]));
          setQuestions([]);
        }}
        onRight={(q) => {
          answered.current.add(q.text);
          void submit();
        }}
      />
      <FormAlert message={wrong} />
      <button type="submit" disabled={isSubmitting} className="plate plate-next !min-h-[48px] w-full text-[16px] sm:w-auto sm:!px-8">
        Add the site
      </button>
    </form>
  );
}
