import { enrolmentSteps } from '../records/enrolment-steps';
import type { GarageType } from '../records/garage-row';

/** What the form of a new record starts from: the likeliest, to be changed. */
export function newRecordStart(
  type: GarageType,
  at: { kind?: string | undefined; currency: string; today: string; cars: readonly { id: string }[] },
): Record<string, unknown> {
  switch (type) {
    case 'car':
      return { connectors: ['CCS2'] };
    case 'adapter':
      return { from: 'CHAdeMO', to: 'CCS2' };
    case 'means':
      return { kind: 'contactless' };
    case 'plan':
      return { currency: at.currency, from: at.today };
    case 'rate':
      return { into: at.currency, on: at.today };
    case 'otherprice':
      return { what: 'home', unit: 'litre', currency: at.currency, from: at.today };
    case 'enrolment': {
      const kind = at.kind === 'plug_and_charge' ? 'plug_and_charge' : 'autocharge';
      return { kind, carId: at.cars.length === 1 ? at.cars[0]?.id : null, steps: enrolmentSteps(kind) };
    }
    default:
      return {};
  }
}
