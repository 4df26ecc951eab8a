import * as z from 'zod';
import { isZone } from '../units/zoned';
import { CONNECTORS } from './connector';
import { amount, choice, day, maybeAmount, maybeWhole, name, text, uuid, yesNo } from './field-schema';
import { MEANS_KIND_NAMES } from './means-kind';

/** Where a car's charging port can sit, and which of these a bay's cable reaches. */
export const PORTS = ['front', 'front left', 'front right', 'left side', 'right side', 'rear left', 'rear right', 'rear'] as const;
export type Port = (typeof PORTS)[number];

export const STALL_STATES = ['working', 'derated', 'closed', 'not yet open'] as const;
/** How stalls of one cabinet share it: each its own power, all of them one sum, or one car at a time. */
export const SHARING = ['own', 'shared', 'one at a time'] as const;
const WATTS = 'is this in watts?';

const telephone = z
  .string()
  .trim()
  .max(32, 'At most 32 characters')
  .regex(/^[+0-9 ()/.-]*$/, 'A telephone number: digits, spaces and +')
  .transform((s) => (s === '' ? null : s))
  .nullable()
  .default(null);
const meansAccepted = z.array(z.enum(MEANS_KIND_NAMES)).max(MEANS_KIND_NAMES.length).nullable().default(null);
/** A photo by the SHA-256 of its bytes; the bytes travel by themselves. */
const photo = z.object({ sha256: z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in lower case'), text: text(120) });
const photos = z.array(photo).max(12, 'At most 12 photos').default([]);

export const networkSchema = z.object({ name: name(80, 'Name the network'), helpline: telephone, note: text(1000) });
/** Who bills the driver when that is not the network. */
export const providerSchema = z.object({ name: name(80, 'Name the provider'), helpline: telephone, note: text(1000) });

export const siteSchema = z
  .object({
    networkId: uuid,
    name: name(80, 'Name the site'),
    zone: z.string().max(64).refine(isZone, 'Not a known time zone, such as Europe/Ljubljana'),
    latitude: z.number('Degrees, such as 46.212').min(-90, 'Between −90 and 90').max(90, 'Between −90 and 90').nullable().default(null),
    longitude: z.number('Degrees, such as 14.711').min(-180, 'Between −180 and 180').max(180, 'Between −180 and 180').nullable().default(null),
    entrance: text(300),
    direction: text(120),
    openingHours: text(120),
    barrier: text(120),
    heightLimit_m: maybeAmount('m', 1.2, 6),
    helpline: telephone,
    meansAccepted,
    orderThatWorks: text(120),
    maxStay_min: maybeWhole('min', 1, 2880),
    overstay: text(200),
    /** Minutes connected after which the overstay rule holds. */
    overstayAfter_min: maybeWhole('min', 1, 2880),
    idle: text(200),
    /** Minutes after the charge before the idle rule holds. */
    idleGrace_min: maybeWhole('min', 0, 2880),
    light: text(120),
    shelter: text(120),
    toilets: text(120),
    food: text(120),
    shop: text(120),
    bins: yesNo,
    squeegee: yesNo,
    safeAtNight: choice(['yes', 'partly', 'no']),
    note: text(1000),
    photos,
  })
  .superRefine((s, ctx) => {
    if ((s.latitude === null) !== (s.longitude === null))
      ctx.addIssue({ code: 'custom', path: [s.latitude === null ? 'latitude' : 'longitude'], message: 'Both coordinates, or neither' });
  });

const outletSchema = z
  .object({
    connector: z.enum(CONNECTORS),
    /** What the plate on the post says. */
    ratedKW: amount('kW', 1, 4000, WATTS),
    /** What the network's app says, which can differ. */
    appKW: maybeAmount('kW', 1, 4000, WATTS),
    maxA: maybeAmount('A', 5, 4000),
    minV: maybeAmount('V', 50, 1500),
    maxV: maybeAmount('V', 50, 1500),
    phases: z
      .union([z.literal(1), z.literal(3)])
      .nullable()
      .default(null),
    cable: choice(['tethered', 'own cable']),
  })
  .superRefine((o, ctx) => {
    if (o.minV !== null && o.maxV !== null && o.minV > o.maxV) ctx.addIssue({ code: 'custom', path: ['maxV'], message: 'Most V is below least V' });
  });
export type Outlet = z.infer<typeof outletSchema>;

export const stallSchema = z
  .object({
    siteId: uuid,
    /** Number or name on the post. */
    name: name(40, 'The number or name on the post'),
    /** What the app or a sticker calls it. */
    otherName: text(40),
    outlets: z.array(outletSchema).min(1, 'At least one connector').max(4, 'At most four connectors'),
    model: text(80),
    /** Stalls of a site with the same cabinet stand on one. */
    cabinet: text(40),
    sharing: choice(SHARING),
    cabinetKW: maybeAmount('kW', 1, 10000, WATTS),
    builtInAdapter: choice(CONNECTORS),
    state: z
      .object({
        is: z.enum(STALL_STATES),
        kW: maybeAmount('kW', 1, 4000, WATTS),
        seenOn: day,
        by: text(80),
      })
      .nullable()
      .default(null),
    maxStay_min: maybeWhole('min', 1, 2880),
    meansAccepted,
    orderThatWorks: text(120),
    portsReached: z.array(z.enum(PORTS)).max(PORTS.length).nullable().default(null),
    cableReach_m: maybeAmount('m', 0.5, 12),
    pullThrough: yesNo,
    trailer: yesNo,
    stepFree: yesNo,
    screenHeight_cm: maybeWhole('cm', 30, 250),
    evseUids: z.array(z.string().trim().min(1).max(48, 'At most 48 characters')).max(8, 'At most eight').default([]),
    note: text(1000),
    photos,
  })
  .superRefine((s, ctx) => {
    if (s.state?.is === 'derated' && s.state.kW === null) ctx.addIssue({ code: 'custom', path: ['state', 'kW'], message: 'Derated to how many kW?' });
    if (s.sharing !== null && s.sharing !== 'own' && s.cabinet === null)
      ctx.addIssue({ code: 'custom', path: ['cabinet'], message: 'Name the cabinet that the stalls share' });
    if (s.builtInAdapter !== null && s.outlets.some((o) => o.connector === s.builtInAdapter))
      ctx.addIssue({ code: 'custom', path: ['builtInAdapter'], message: `The stall has ${s.builtInAdapter} itself: an adapter to it changes nothing` });
  });
