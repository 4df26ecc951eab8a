import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { type CompiledTariff, compileTariff } from './compiled-tariff';
import type { KeptTariff } from './tariff-on';

/** The object of a price and what is beside it; one that only says so much per kWh and start is an object of one element, prices with tax in. */
export function objectOf(t: Pick<KeptTariff, 'id' | 'currency' | 'perKWh' | 'startFee' | 'tariff' | 'extra' | 'validFrom'>): {
  tariff: OcpiTariff;
  extra: ExtraPricing;
} {
  if (t.tariff) return { tariff: t.tariff, extra: t.extra ?? {} };
  const start = Number(t.startFee);
  return {
    tariff: {
      country_code: 'ZZ',
      party_id: 'OWN',
      id: t.id,
      currency: t.currency,
      elements: [
        {
          price_components: [
            ...(start > 0 ? [{ type: 'FLAT' as const, price: start, step_size: 0 }] : []),
            { type: 'ENERGY' as const, price: Number(t.perKWh ?? 0), step_size: 0 },
          ],
        },
      ],
      last_updated: `${t.validFrom}T00:00:00Z`,
    },
    extra: {},
  };
}

const compiled = new WeakMap<KeptTariff, CompiledTariff>();
/** A price made ready, once. */
export function compiledOf(t: KeptTariff): CompiledTariff {
  const found = compiled.get(t);
  if (found) return found;
  const { tariff, extra } = objectOf(t);
  const made = compileTariff(tariff, extra);
  compiled.set(t, made);
  return made;
}

const contents = new WeakMap<KeptTariff, string>();
/** All of a price that says what something costs and until when, in a text: prices that say the same are alike whosever they are. */
export function contentOf(t: KeptTariff): string {
  const found = contents.get(t);
  if (found !== undefined) return found;
  const { tariff, extra } = objectOf(t);
  const made = JSON.stringify([tariff.currency, tariff.elements, tariff.min_price, tariff.max_price, tariff.start_date_time, tariff.end_date_time, extra]);
  contents.set(t, made);
  return made;
}
