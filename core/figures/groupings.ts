import { meansLabel } from '../records/means-kind';
import type { RecordType } from '../records/record-types';
import { printMonth } from '../units/zoned';
import type { WEATHERS } from '../visit/on-arrival';
import type { AttemptFigure } from './attempt-figures';
import type { Figure, Value } from './figure';
import type { VisitFigure } from './visit-figures';

/** What stands with a visit itself, beside its figures: where it was, with which car, who drove. Columns of `visit`. */
export const VISIT_KEYS = {
  networkId: { column: 'network_id', is: 'id' },
  siteId: { column: 'site_id', is: 'id' },
  carId: { column: 'car_id', is: 'id' },
  driverId: { column: 'driver_id', is: 'id' },
  month: { column: 'local_month', is: 'text' },
} as const satisfies Record<string, Pick<Figure<never>, 'column' | 'is'>>;
export type VisitKey = keyof typeof VISIT_KEYS;

/**
 * What visits are grouped by. `visit`: all of a visit is in one group. `attempt`: each attempt is in its own, and a figure of the whole
 * visit counts where its first attempt was.
 */
export type GroupingFile = {
  /** `network`, `networks`. */
  one: string;
  many: string;
  /** The record that a key is the id of, else the words for each key. */
  named: RecordType | 'person' | ((key: string) => string);
} & ({ visit: VisitFigure | VisitKey } | { attempt: AttemptFigure });

const asIs = (key: string) => key;
const WEATHER_WORDS: Readonly<Record<(typeof WEATHERS)[number], string>> = { rain: 'Rain', cold: 'Cold', mild: 'Mild', hot: 'Hot' };
/** A key may come from an address that was mistyped: what is no month is itself. */
const monthWords = (key: string) => (/^\d{4}-(0[1-9]|1[0-2])$/.test(key) ? printMonth(key) : key);
const twoDigits = (n: number) => String(n).padStart(2, '0');

export const GROUPINGS = {
  network: { one: 'network', many: 'networks', named: 'network', visit: 'networkId' },
  site: { one: 'site', many: 'sites', named: 'site', visit: 'siteId' },
  stall: { one: 'stall', many: 'stalls', named: 'stall', attempt: 'stallId' },
  model: { one: 'stall model', many: 'stall models', named: asIs, attempt: 'model' },
  connector: { one: 'connector', many: 'connectors', named: asIs, attempt: 'connector' },
  means: { one: 'means', many: 'ways to pay', named: meansLabel, attempt: 'meansKind' },
  car: { one: 'car', many: 'cars', named: 'car', visit: 'carId' },
  driver: { one: 'driver', many: 'drivers', named: 'person', visit: 'driverId' },
  adapter: { one: 'adapter', many: 'adapters', named: 'adapter', attempt: 'adapterId' },
  hour: { one: 'hour', many: 'hours of the day', named: (key) => `${twoDigits(Number(key))}:00 to ${twoDigits((Number(key) + 1) % 24)}:00`, visit: 'hour' },
  weather: { one: 'weather', many: 'weather noted', named: (key) => WEATHER_WORDS[key as keyof typeof WEATHER_WORDS] ?? key, visit: 'weather' },
  month: { one: 'month', many: 'months', named: monthWords, visit: 'month' },
} as const satisfies Record<string, GroupingFile>;
export type Grouping = keyof typeof GROUPINGS;
export const GROUPING_NAMES = Object.keys(GROUPINGS) as Grouping[];

/** A group: what it is grouped by, and which. */
export type Group = { by: Grouping; key: string };

type Keyed = { readonly [K in VisitFigure | VisitKey]?: Value | undefined } & {
  readonly attempts: readonly { readonly [K in AttemptFigure]?: Value | undefined }[];
};
const asKey = (value: Value | undefined): string | null => (value === null || value === undefined ? null : String(value));

/** The group of a whole visit; `null`: it has none, nobody noted it. */
export function groupOfVisit(by: Grouping, visit: Keyed): string | null {
  const g: GroupingFile = GROUPINGS[by];
  return asKey('visit' in g ? visit[g.visit] : visit.attempts[0]?.[g.attempt]);
}

/** The group of one of its attempts. */
export function groupOfAttempt(by: Grouping, visit: Keyed, attempt: Keyed['attempts'][number]): string | null {
  const g: GroupingFile = GROUPINGS[by];
  return asKey('visit' in g ? visit[g.visit] : attempt[g.attempt]);
}
