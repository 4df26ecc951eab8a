import { firstProblem, ownWords } from '../units/own-words';
import { extraPricing, ocpiTariff } from './ocpi-tariff';

const OBJECTS = { tariff: ocpiTariff, extra: extraPricing } as const;

/** What is wrong with the object of a price, or with what stands beside it: the first thing, by its path. `null`: nothing, or there is none. */
export function priceObjectProblem(fields: Readonly<Record<string, unknown>>): { path: string; reason: string } | null {
  for (const name of ['tariff', 'extra'] as const) {
    if (fields[name] === null || fields[name] === undefined) continue;
    const parsed = OBJECTS[name].safeParse(fields[name], { error: ownWords });
    if (!parsed.success) return firstProblem(parsed.error, `fields.${name}`);
  }
  return null;
}
