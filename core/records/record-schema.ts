import * as z from 'zod';
import { DECIMAL } from '../units/money';
import { isZone } from '../units/zoned';
import { CONNECTORS } from './connector';
import { MEANS_KIND_NAMES } from './means-kind';
import { privateNumber } from './private-number';

const uuid = z.string().regex(/^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/, 'must be a UUID in lower case');
/** A name that a driver types: trimmed, bounded, and never a card or hardware number. */
const name = (max: number, missing: string) =>
  z
    .string()
    .trim()
    .min(1, missing)
    .max(max, `At most ${max} characters`)
    .superRefine((s, ctx) => {
      const why = privateNumber(s);
      if (why) ctx.addIssue({ code: 'custom', message: why });
    });
const price = z
  .string()
  .trim()
  .regex(DECIMAL, 'A decimal number such as 0.55')
  .refine((s) => Number(s) >= 0 && Number(s) <= 100, 'Between 0 and 100');

/** What a household keeps about places, cars, means and prices. One schema for form, phone and server. */
export const RECORDS = {
  network: z.object({ name: name(80, 'Name the network') }),
  site: z.object({
    networkId: uuid,
    name: name(80, 'Name the site'),
    zone: z.string().max(64).refine(isZone, 'Not a known time zone'),
    latitude: z.number().min(-90).max(90).nullable().default(null),
    longitude: z.number().min(-180).max(180).nullable().default(null),
  }),
  stall: z.object({
    siteId: uuid,
    name: name(40, 'The number or name on the post'),
    connector: z.enum(CONNECTORS),
    ratedKW: z.number('A number of kW').min(1, 'At least 1 kW').max(4000, 'At most 4000 kW'),
  }),
  car: z.object({
    name: name(80, 'Name the car'),
    usableKWh: z.number('A number of kWh').min(1, 'At least 1 kWh').max(1000, 'At most 1000 kWh'),
    connector: z.enum(CONNECTORS),
  }),
  means: z.object({ kind: z.enum(MEANS_KIND_NAMES), label: name(80, 'Give it a label') }),
  tariff: z.object({
    networkId: uuid,
    currency: z.string().regex(/^[A-Z]{3}$/, 'Three letters, such as EUR'),
    perKWh: price,
    startFee: price,
    validFrom: z.iso.date('A date'),
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
  fields: z.record(z.string(), z.unknown()),
});

export type RecordItem = { [K in RecordType]: { type: K; id: string; baseRev: number; fields: RecordFields<K> } }[RecordType];
export type RecordCheck = { ok: true; record: RecordItem } | { ok: false; path: string; reason: string };

/** Checks one record from outside. Never throws. */
export function checkRecord(raw: unknown): RecordCheck {
  const envelope = item.safeParse(raw);
  if (!envelope.success)
    return { ok: false, path: envelope.error.issues[0]?.path.join('.') || 'record', reason: envelope.error.issues[0]?.message ?? 'not understood' };
  const { type, id, baseRev } = envelope.data;
  const fields = RECORDS[type].safeParse(envelope.data.fields);
  if (!fields.success)
    return { ok: false, path: ['fields', ...(fields.error.issues[0]?.path ?? [])].join('.'), reason: fields.error.issues[0]?.message ?? 'not understood' };
  return { ok: true, record: { type, id, baseRev, fields: fields.data } as RecordItem };
}
