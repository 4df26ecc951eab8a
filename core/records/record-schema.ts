import * as z from 'zod';
import { unkeepable } from '../units/keepable-json';
import { firstProblem, ownWords } from '../units/own-words';
import { currency, day, price, uuid } from './field-schema';
import { adapterSchema, carSchema, enrolmentSchema, meansSchema, planSchema } from './garage-schema';
import { fromOlderShape } from './older-shape';
import { networkSchema, providerSchema, siteSchema, stallSchema } from './place-schema';

/** What a household keeps about places, garage and prices. One schema for form, phone and server, in the order in which one may refer to another. */
export const RECORDS = {
  network: networkSchema,
  provider: providerSchema,
  site: siteSchema,
  stall: stallSchema,
  car: carSchema,
  adapter: adapterSchema,
  means: meansSchema,
  plan: planSchema,
  enrolment: enrolmentSchema,
  tariff: z.object({
    networkId: uuid,
    currency,
    perKWh: price(100),
    startFee: price(100),
    validFrom: day,
  }),
} as const;

export type RecordType = keyof typeof RECORDS;
export type RecordFields<T extends RecordType> = z.infer<(typeof RECORDS)[T]>;
export const RECORD_TYPES = Object.keys(RECORDS) as RecordType[];

/** A record as it travels: `rev` is the household's rev when it was last written. */
export type MileRecord<T extends RecordType = RecordType> = { [K in T]: { type: K; id: string; rev: number; archived: boolean; fields: RecordFields<K> } }[T];

const item = z.object({
  type: z.enum(RECORD_TYPES as [RecordType, ...RecordType[]]),
  id: uuid,
  baseRev: z.int().min(0),
  archived: z.boolean().default(false),
  fields: z.record(z.string(), z.unknown()),
});

/** A record on its way to the server: `baseRev` is the rev it was changed from, 0 for a new one. */
export type RecordItem<T extends RecordType = RecordType> = {
  [K in T]: { type: K; id: string; baseRev: number; archived?: boolean; fields: RecordFields<K> };
}[T];
export type RecordCheck = { ok: true; record: RecordItem } | { ok: false; path: string; reason: string };

/** Checks one record from outside. Never throws. */
export function checkRecord(raw: unknown): RecordCheck {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) return { ok: false, path: 'record', reason: 'must hold named fields' };
  const odd = unkeepable(raw, '');
  if (odd) return { ok: false, ...odd };
  const envelope = item.safeParse(raw, { error: ownWords });
  if (!envelope.success) return { ok: false, ...firstProblem(envelope.error, '') };
  const { type, id, baseRev, archived } = envelope.data;
  const fields = RECORDS[type].safeParse(fromOlderShape(type, envelope.data.fields), { error: ownWords });
  if (!fields.success) return { ok: false, ...firstProblem(fields.error, 'fields') };
  return { ok: true, record: { type, id, baseRev, archived, fields: fields.data } as RecordItem };
}

/** The fields of a type that have a value when nothing was said: what an older row or an empty form starts from. */
export function blankFields<T extends RecordType>(type: T): Partial<RecordFields<T>> {
  const said = Object.entries(RECORDS[type].shape as Record<string, z.ZodType>).flatMap(([field, schema]) => {
    const nothing = schema.safeParse(undefined);
    return nothing.success ? [[field, nothing.data]] : [];
  });
  return Object.fromEntries(said) as Partial<RecordFields<T>>;
}

/** A record made of what is said, everything else blank. @throws ZodError when it is not allowed */
export const recordItem = <T extends RecordType>(type: T, id: string, said: z.input<(typeof RECORDS)[T]>, baseRev = 0): RecordItem<T> =>
  ({ type, id, baseRev, archived: false, fields: RECORDS[type].parse(said) }) as RecordItem<T>;
