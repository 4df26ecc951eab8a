import type { Visit } from '../visit/derive';

/** What of a record a figure depends on besides the visit's own events. When it changes, the figures that used it are out of date. */
export const INPUTS = [
  'site.networkId',
  'stall.siteId',
  'stall.model',
  'stall.outlets',
  'stall.plate',
  'car.usableKWh',
  'tariff.says',
  'plan.holds',
  'means.providerId',
] as const;
export type Input = (typeof INPUTS)[number];

/** Where places belong, for those that a visit names. `undefined`: not known here. */
export type Where = {
  networkOfSite: (siteId: string) => string | undefined;
  /** Whether its bill is that of the price on file; `null`: it cannot be held against one. */
  bill?: (visit: Visit) => 'right' | 'off' | null;
  /** How much of its sessions looks wrong beside what is on file of stall and car. */
  doubts?: (visit: Visit) => number;
  stall: (stallId: string) => { siteId: string; model?: string | null; connectors?: readonly string[] } | undefined;
};

export type Value = string | number | boolean | null;

/** One derived figure as it is kept, shown and counted. `of` is a visit, or an attempt of one. */
export type Figure<Of> = {
  /** Its column in the table of figures. Ids are kept in binary, money and kWh as decimals. */
  column: string;
  is: 'number' | 'decimal' | 'text' | 'id' | 'yes_no';
  unit: 's' | 'kWh' | 'money' | 'count' | '';
  /** What it is, in words; the rule in full stands in docs/definitions.md. */
  definition: string;
  inputs?: readonly Input[];
  /** `null` where it is not known. */
  value: (of: Of, where: Where) => Value;
};
