import * as z from '@/core/units/schema';
import { isZone } from '../units/zoned';
import { CONNECTORS } from './connector';
import { amount, choice, day, jsonObject, line, listOf, maybe, maybeAmount, maybeWhole, name, orMissing, text, uuid, yesNo } from './field-schema';
import { MEANS_KIND_NAMES } from './means-kind';

/** Where a car's charging port can sit, and which of these a bay's cable reaches. */
export const PORTS = ['front', 'front left', 'front right', 'left side', 'right side', 'rear left', 'rear right', 'rear'] as const;
export type Port = (typeof PORTS)[number];

export const STALL_STATES = ['working', 'derated', 'closed', 'not yet open'] as const;
/** How stalls of one cabinet share it: each its own power, all of them one sum, or one car at a time. */
export const SHARING = ['own', 'shared', 'one at a time'] as const;
/** Characters of a site's file that are kept with it. */
export const MOST_DOCUMENT = 20_000;
const WATTS = 'is this in watts?';

const telephone = orMissing(line(32).check(z.regex(/^[+0-9 ()/.-]*$/, 'A telephone number: digits, spaces and +')));
const meansAccepted = maybe(z.array(z.enum(MEANS_KIND_NAMES)).check(z.maxLength(MEANS_KIND_NAMES.length)));
/** A photo by the SHA-256 of its bytes; the bytes travel by themselves. */
const photo = z.object({ sha256: z.string().check(z.regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in lower case')), text: text(120) });
const photos = listOf(photo, 12, 'At most 12 photos');

export const networkSchema = z.object({ name: name(80, 'Name the network'), helpline: telephone, note: text(1000) });
/** Who bills the driver when that is not the network. */
export const providerSchema = z.object({ name: name(80, 'Name the provider'), helpline: telephone, note: text(1000) });

export const siteSchema = z
  .object({
    networkId: uuid,
    name: name(80, 'Name the site'),
    zone: z.string().check(z.maxLength(64), z.refine(isZone, 'Not a known time zone, such as Europe/Ljubljana')),
    latitude: maybe(z.number('Degrees, such as 46.212').check(z.minimum(-90, 'Between −90 and 90'), z.maximum(90, 'Between −90 and 90'))),
    longitude: maybe(z.number('Degrees, such as 14.711').check(z.minimum(-180, 'Between −180 and 180'), z.maximum(180, 'Between −180 and 180'))),
    entrance: text(300),
    direction: text(120),
    openingHours: text(120),
    barrier: text(120),
    heightLimit_m: maybeAmount('m', 1.2, 6),
    helpline: telephone,
    /** What is called in danger; where it is missing the zone proposes one. */
    emergencyNumber: telephone,
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
    /** What the file that it came from or was added to by says of it, as it stands there: members that no field has, too. */
    fromFile: maybe(z.object({ format: z.enum(['OCPI', 'GeoJSON']), day, document: jsonObject(MOST_DOCUMENT) })),
  })
  .check(
    z.superRefine((s, ctx) => {
      if ((s.latitude === null) !== (s.longitude === null))
        ctx.addIssue({ code: 'custom', path: [s.latitude === null ? 'latitude' : 'longitude'], message: 'Both coordinates, or neither' });
    }),
  );

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
    phases: maybe(z.union([z.literal(1), z.literal(3)])),
    cable: choice(['tethered', 'own cable']),
  })
  .check(
    z.superRefine((o, ctx) => {
      if (o.minV !== null && o.maxV !== null && o.minV > o.maxV) ctx.addIssue({ code: 'custom', path: ['maxV'], message: 'Most V is below least V' });
    }),
  );
export type Outlet = z.infer<typeof outletSchema>;

export const stallSchema = z
  .object({
    siteId: uuid,
    /** Number or name on the post. */
    name: name(40, 'The number or name on the post'),
    /** What the app or a sticker calls it. */
    otherName: text(40),
    outlets: z.array(outletSchema).check(z.minLength(1, 'At least one connector'), z.maxLength(4, 'At most four connectors')),
    model: text(80),
    /** Stalls of a site with the same cabinet stand on one. */
    cabinet: text(40),
    sharing: choice(SHARING),
    cabinetKW: maybeAmount('kW', 1, 10000, WATTS),
    builtInAdapter: choice(CONNECTORS),
    state: maybe(
      z.object({
        is: z.enum(STALL_STATES),
        kW: maybeAmount('kW', 1, 4000, WATTS),
        seenOn: day,
        by: text(80),
      }),
    ),
    maxStay_min: maybeWhole('min', 1, 2880),
    meansAccepted,
    orderThatWorks: text(120),
    portsReached: maybe(z.array(z.enum(PORTS)).check(z.maxLength(PORTS.length))),
    cableReach_m: maybeAmount('m', 0.5, 12),
    pullThrough: yesNo,
    trailer: yesNo,
    stepFree: yesNo,
    screenHeight_cm: maybeWhole('cm', 30, 250),
    evseUids: listOf(line(48).check(z.minLength(1)), 8, 'At most eight'),
    note: text(1000),
    photos,
  })
  .check(
    z.superRefine((s, ctx) => {
      if (s.state?.is === 'derated' && s.state.kW === null) ctx.addIssue({ code: 'custom', path: ['state', 'kW'], message: 'Derated to how many kW?' });
      if (s.sharing !== null && s.sharing !== 'own' && s.cabinet === null)
        ctx.addIssue({ code: 'custom', path: ['cabinet'], message: 'Name the cabinet that the stalls share' });
      if (s.builtInAdapter !== null && s.outlets.some((o) => o.connector === s.builtInAdapter))
        ctx.addIssue({ code: 'custom', path: ['builtInAdapter'], message: `The stall has ${s.builtInAdapter} itself: an adapter to it changes nothing` });
    }),
  );
