import { enrolmentSteps } from '@/core/records/enrolment-steps';
import { type RecordItem, recordItem } from '@/core/records/record-schema';
import { placeId } from './ids';
import { badger, cars, heron, MEMBER, means, networks } from './scenario';

/** The household's cars, adapters, ways to pay, plans and enrolments. All of it invented. */
const FOUNDED = Date.parse('2024-04-03T06:00:00Z');
const made = () => placeId(FOUNDED);
const providers = { lindenpass: made(), wayleaf: made() };

/** In the order in which one refers to another. */
export function garageRecords(): RecordItem[] {
  const done = (kind: 'autocharge' | 'plug_and_charge', days: (string | null)[]) => enrolmentSteps(kind).map((s, i) => ({ ...s, doneOn: days[i] ?? null }));
  return [
    recordItem('provider', providers.lindenpass, { name: 'Lindenpass', helpline: '+386 1 555 0190', note: 'Bills the workshop once a month.' }),
    recordItem('provider', providers.wayleaf, { name: 'Wayleaf', note: 'Contract for Plug & Charge.' }),
    recordItem('car', cars.heron.id, {
      name: cars.heron.name,
      usableKWh: cars.heron.usableKWh,
      connectors: ['CCS2'],
      port: 'rear left',
      maxDCkW: 121,
      maxACkW: 11,
      acPhases: 3,
      packV0: 318,
      packV100: 403,
      voltClass: 400,
      curve: heron.curve.map(([pct, kW]): [number, number] => [pct, kW]),
      kWhPer100km: 17.5,
    }),
    recordItem('car', cars.badger.id, {
      name: cars.badger.name,
      usableKWh: cars.badger.usableKWh,
      connectors: ['CCS2'],
      port: 'front left',
      maxDCkW: 178,
      maxACkW: 11,
      acPhases: 3,
      packV0: 588,
      packV100: 756,
      voltClass: 800,
      boosterKW: 50,
      curve: badger.curve.map(([pct, kW]): [number, number] => [pct, kW]),
      kWhPer100km: 27,
      note: 'The workshop’s van; tall, mind height limits.',
    }),
    recordItem('adapter', made(), {
      name: 'CHAdeMO box',
      from: 'CHAdeMO',
      to: 'CCS2',
      maxA: 125,
      maxV: 500,
      firmware: '1.9',
      firmwareDate: '2025-02-11',
      approved: true,
      note: 'In the boot of the Heron. Needs a charge of its own before use.',
    }),
    recordItem('adapter', made(), { name: 'Type 1 sleeve', from: 'Type 1', to: 'Type 2', maxA: 32, maxV: 250 }),
    recordItem('means', means.card.id, { kind: 'contactless', label: 'Bank card', expires: '2025-12' }),
    recordItem('means', made(), { kind: 'card_insert', label: 'Workshop card, by the chip', expires: '2027-04' }),
    recordItem('means', made(), { kind: 'phone_wallet', label: 'Phone wallet' }),
    recordItem('means', means.app.id, { kind: 'app', label: 'Bluebarn app', networkId: networks.bluebarn.id }),
    recordItem('means', made(), { kind: 'web', label: 'Web page, by the code on the post' }),
    recordItem('means', means.rfid.id, { kind: 'rfid', label: 'Workshop tag', providerId: providers.lindenpass }),
    recordItem('means', made(), { kind: 'rfid', label: 'Old fuel card', providerId: providers.lindenpass, expires: '2025-06' }),
    recordItem('means', means.auto.id, { kind: 'autocharge', label: 'Heron, Autocharge' }),
    recordItem('means', made(), { kind: 'plug_and_charge', label: 'Badger, Plug & Charge', providerId: providers.wayleaf }),
    recordItem('means', made(), { kind: 'remote', label: 'Call to the helpline' }),
    recordItem('means', made(), { kind: 'free_vend', label: 'Free at the council’s' }),
    recordItem('means', made(), { kind: 'in_app_account', label: 'Ferrywell account', networkId: networks.ferrywell.id }),
    recordItem('plan', made(), {
      name: MEMBER.name,
      networkId: networks.copperbeech.id,
      monthlyFee: '4.99',
      currency: 'EUR',
      from: MEMBER.from,
      until: MEMBER.until,
      note: 'Paid in June, not in July.',
    }),
    recordItem('plan', made(), { name: 'Lindenpass workshop', providerId: providers.lindenpass, monthlyFee: '0', currency: 'EUR', from: '2024-04-01' }),
    recordItem('otherprice', made(), { what: 'home', price: '0.19', currency: 'EUR', from: '2024-01-01', note: 'The workshop’s meter' }),
    recordItem('otherprice', made(), { what: 'diesel', price: '1.58', currency: 'EUR', needs: 6.1, from: '2024-01-01', note: 'The van before the Badger' }),
    recordItem('otherprice', made(), { what: 'hour', price: '18', currency: 'EUR', from: '2024-01-01' }),
    recordItem('enrolment', made(), {
      kind: 'autocharge',
      carId: cars.heron.id,
      networkId: networks.copperbeech.id,
      steps: done('autocharge', ['2024-08-30', '2024-08-30', '2024-09-02', '2024-09-10', '2024-09-10', '2024-09-17']),
      enrolledOn: '2024-09-10',
      chargedOn: '2024-09-17',
    }),
    recordItem('enrolment', made(), {
      kind: 'plug_and_charge',
      carId: cars.badger.id,
      networkId: networks.saltmarsh.id,
      providerId: providers.wayleaf,
      steps: done('plug_and_charge', ['2025-09-29', '2025-10-02']),
      note: 'The certificate has not come yet.',
    }),
    recordItem('enrolment', made(), {
      kind: 'autocharge',
      carId: cars.heron.id,
      networkId: networks.bluebarn.id,
      steps: done('autocharge', ['2025-07-14', '2025-07-14', '2025-07-15', '2025-07-15', '2025-07-15']),
      enrolledOn: '2025-07-15',
    }),
  ];
}
