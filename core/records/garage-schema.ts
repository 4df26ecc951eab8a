import * as z from '@/core/units/schema';
import { acOf, CONNECTORS, fitsInto, INLETS, inletProblem } from './connector';
import { amount, choice, currency, day, listOf, maybe, maybeAmount, maybeDay, name, payName, payText, price, text, uuid } from './field-schema';
import { MEANS_KIND_NAMES } from './means-kind';
import { PORTS } from './place-schema';

const WATTS = 'is this in watts?';

export const carSchema = z
  .object({
    name: name(80, 'Name the car'),
    usableKWh: amount('kWh', 1, 1000, 'is this in watt-hours?'),
    connectors: z.array(z.enum(CONNECTORS)).check(z.minLength(1, 'At least one connector'), z.maxLength(4, 'At most four connectors')),
    port: choice(PORTS),
    maxDCkW: maybeAmount('kW', 1, 4000, WATTS),
    maxACkW: maybeAmount('kW', 1, 100, WATTS),
    acPhases: maybe(z.union([z.literal(1), z.literal(2), z.literal(3)])),
    packV0: maybeAmount('V', 50, 1500),
    packV100: maybeAmount('V', 50, 1500),
    voltClass: maybe(z.union([z.literal(400), z.literal(800)])),
    /** What a booster gives at a stall whose top volts are below the pack's. */
    boosterKW: maybeAmount('kW', 1, 500, WATTS),
    /** The volts at which it does; as many as the stall gives where not noted. */
    boosterV: maybeAmount('V', 50, 1500),
    /** Own charge curve: [battery %, kW], rising in %. */
    curve: listOf(z.tuple([amount('%', 0, 100), amount('kW', 0, 4000, WATTS)]), 40, 'At most 40 points'),
    kWhPer100km: maybeAmount('kWh per 100 km', 5, 300),
    note: text(1000),
  })
  .check(
    z.superRefine((c, ctx) => {
      const problem = inletProblem(c.connectors);
      if (problem) ctx.addIssue({ code: 'custom', path: ['connectors'], message: problem });
      if (c.packV0 !== null && c.packV100 !== null && c.packV0 >= c.packV100)
        ctx.addIssue({ code: 'custom', path: ['packV100'], message: 'A full pack has more volts than an empty one' });
      if (c.curve.some(([pct], i) => i > 0 && pct <= (c.curve[i - 1]?.[0] ?? -1)))
        ctx.addIssue({ code: 'custom', path: ['curve'], message: 'One point per battery level, from low to high' });
    }),
  );

export const adapterSchema = z
  .object({
    name: name(80, 'Name the adapter'),
    /** The stall's plug goes in here. */
    from: z.enum(CONNECTORS),
    /** This goes into the car. */
    to: z.enum(INLETS),
    maxA: maybeAmount('A', 5, 4000),
    maxV: maybeAmount('V', 50, 1500),
    firmware: text(40),
    firmwareDate: maybeDay,
    approved: maybe(z.boolean()),
    note: text(1000),
  })
  .check(
    z.superRefine((a, ctx) => {
      if (a.from === a.to) ctx.addIssue({ code: 'custom', path: ['to'], message: `From ${a.from} to ${a.to} needs no adapter` });
      else if (fitsInto([a.to]).has(a.from)) ctx.addIssue({ code: 'custom', path: ['to'], message: `${a.from} fits into ${a.to} without an adapter` });
      else if ((acOf(a.from) === null) !== (acOf(a.to) === null))
        ctx.addIssue({ code: 'custom', path: ['to'], message: `${a.from} and ${a.to}: no adapter turns direct current into alternating or back` });
    }),
  );

export const meansSchema = z.object({
  kind: z.enum(MEANS_KIND_NAMES),
  label: payName(80, 'Give it a label'),
  providerId: maybe(uuid),
  networkId: maybe(uuid),
  /** The last month it works in, `2026-03`. */
  expires: maybe(z.string().check(z.regex(/^20\d\d-(0[1-9]|1[0-2])$/, 'A month such as 2026-03'))),
  note: payText(500),
});

export const planSchema = z
  .object({
    name: payName(80, 'Name the plan'),
    providerId: maybe(uuid),
    networkId: maybe(uuid),
    monthlyFee: maybe(price()),
    currency,
    from: day,
    until: maybeDay,
    note: payText(500),
  })
  .check(
    z.superRefine((p, ctx) => {
      if (p.providerId === null && p.networkId === null)
        ctx.addIssue({ code: 'custom', path: ['networkId'], message: 'Whose plan is it: a network’s or a provider’s?' });
      if (p.until !== null && p.until < p.from) ctx.addIssue({ code: 'custom', path: ['until'], message: 'It would end before it begins' });
    }),
  );

const stepSchema = z.object({
  where: z.enum(['home', 'stall']),
  /** What to do. */
  act: payName(200, 'What is to be done?'),
  /** What shows that it worked. */
  shows: payText(200),
  doneOn: maybeDay,
});
export type EnrolmentStep = z.infer<typeof stepSchema>;

export const enrolmentSchema = z
  .object({
    kind: z.enum(['autocharge', 'plug_and_charge']),
    carId: uuid,
    networkId: uuid,
    providerId: maybe(uuid),
    steps: listOf(stepSchema, 20, 'At most 20 steps'),
    /** The network says the car is enrolled. */
    enrolledOn: maybeDay,
    /** The first charge that started by it: another result than being enrolled. */
    chargedOn: maybeDay,
    note: payText(500),
  })
  .check(
    z.superRefine((e, ctx) => {
      if (e.chargedOn !== null && e.enrolledOn !== null && e.chargedOn < e.enrolledOn)
        ctx.addIssue({ code: 'custom', path: ['chargedOn'], message: 'It charged before it was enrolled?' });
    }),
  );
