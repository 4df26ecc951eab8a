import { randomLcg } from 'd3-random';
import { type RecordItem, recordItem } from '@/core/records/record-schema';
import { NO_PRICE, objectOfPlain, oneLineOf, type PlainPrice } from '@/core/tariff/plain-price';
import { idFrom } from './ids';
import { MEMBER, networks, sites } from './scenario';

/** What posts say on both sides of the border, beside the networks’ plain prices: by the time of day, by minutes and power, idle, overstay, tax on top, and for those who hold a plan. */
const FOUNDED = Date.parse('2024-04-04T06:00:00Z');
/** Of their own randomness: another price changes no visit and no place. */
const random = randomLcg(0.8128);
const made = () => idFrom(random, FOUNDED);

type Of = { networkId: string; siteId?: string; moreSiteIds?: string[]; planId?: string; validFrom: string; validUntil?: string; note?: string };
function price(of: Of, said: Partial<PlainPrice>): RecordItem {
  const id = made();
  const plain = { ...NO_PRICE, ...said };
  const { tariff, extra } = objectOfPlain(plain, { id, currency: 'EUR', day: of.validFrom });
  return recordItem('tariff', id, { currency: 'EUR', ...of, ...oneLineOf(plain), tariff, extra });
}

/** @param others records among which sites and plans are found by their names */
export function priceRecords(others: readonly RecordItem[]): RecordItem[] {
  const named = (name: string): string => others.find((r) => 'name' in r.fields && r.fields.name === name)?.id ?? '';
  const { otterbrook, hollinPublic } = networks;
  const [belfry, alder, gail] = [sites.belfry.id, sites.forge.id, sites.gail.id];
  const copper = networks.copperbeech.id;
  return [
    price({ networkId: copper, planId: named(MEMBER.name), validFrom: '2024-06-01', note: 'From the plan’s own page' }, { perKWh: MEMBER.perKWh }),
    price(
      { networkId: networks.saltmarsh.id, siteId: gail, validFrom: '2025-05-12', note: 'On the post, with Austrian tax' },
      { perKWh: '0.44', windows: [{ from: '07:00', to: '20:00', days: 'weekdays', perKWh: '0.62' }], startFee: '0.46', idlePerMin: '0.25', idleAfterMin: '10' },
    ),
    price({ networkId: otterbrook.id, validFrom: '2024-01-01', validUntil: '2025-02-28' }, { perKWh: '0.44', startFee: '0.40', taxOnTop: '20' }),
    price({ networkId: otterbrook.id, validFrom: '2025-03-01', note: 'The app shows it without tax' }, { perKWh: '0.49', startFee: '0.50', taxOnTop: '20' }),
    price({ networkId: otterbrook.id, planId: named('Lindenpass workshop'), validFrom: '2025-03-01' }, { perKWh: '0.52' }),
    price(
      { networkId: hollinPublic.id, validFrom: '2024-01-01', note: 'The council’s own price' },
      { perKWh: '0.27', overstayFee: '12.00', overstayAfterMin: '180' },
    ),
    price(
      { networkId: hollinPublic.id, siteId: alder, validFrom: '2024-01-01', validUntil: '2025-07-31', note: 'Free while the council tries it out' },
      { perKWh: '0' },
    ),
    price({ networkId: hollinPublic.id, siteId: belfry, validFrom: '2025-03-03' }, { perKWh: '0.29', overstayFee: '12.00', overstayAfterMin: '120' }),
    price(
      { networkId: hollinPublic.id, siteId: alder, validFrom: '2025-08-01' },
      {
        byPower: [
          { fromKW: '0', perMin: '0.09' },
          { fromKW: '22', perMin: '0.24' },
        ],
        freeMin: '15',
        minimum: '2.00',
      },
    ),
    price({ networkId: networks.ferrywell.id, siteId: sites.brod.id, validFrom: '2025-09-19' }, { perKWh: '0.46', startFee: '1.00', perMin: '0.06' }),
  ];
}
