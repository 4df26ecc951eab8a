import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { onceOf } from '../units/once-of';
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

/** A price made ready, once. */
export const compiledOf = onceOf((t: KeptTariff): CompiledTariff => {
  const { tariff, extra } = objectOf(t);
  return compileTariff(tariff, extra);
});

/** All of a price that says what something costs and until when, in a text: prices that say the same are alike whosever they are. */
export const contentOf = onceOf((t: KeptTariff): string => {
  const { tariff, extra } = objectOf(t);
  return JSON.stringify([tariff.currency, tariff.elements, tariff.min_price, tariff.max_price, tariff.start_date_time, tariff.end_date_time, extra]);
});
