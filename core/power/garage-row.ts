import { stepsLeft } from '../records/enrolment-steps';
import { meansLabel } from '../records/means-kind';
import type { MileRecord } from '../records/record-schema';
import { printMoney } from '../units/money';
import { printKW } from '../units/print';
import { printSeen } from './answer-words';
import { expiresSoon, hasExpired } from './means-here';
import { carDCkW } from './most-kw';

/** Types that the garage lists, in its order. */
export const GARAGE_TYPES = ['car', 'adapter', 'means', 'plan', 'enrolment', 'network', 'provider'] as const;
export type GarageType = (typeof GARAGE_TYPES)[number];

/** A record as a row of a list: what it is called, one line about it, and what needs attention. */
export type GarageRow = { id: string; name: string; line: string; heed: string | null; archived: boolean };

/** @param nameOf name of a record that this one refers to @param today local day */
export function garageRow(r: MileRecord<GarageType>, nameOf: (id: string | null) => string, today: string): GarageRow {
  const row = (name: string, line: (string | null | false)[], heed: string | null = null): GarageRow => ({
    id: r.id,
    name,
    line: line.filter((x): x is string => typeof x === 'string' && x !== '').join(', '),
    heed,
    archived: r.archived,
  });
  switch (r.type) {
    case 'car': {
      const kW = carDCkW(r.fields);
      return row(r.fields.name, [
        `${r.fields.usableKWh} kWh`,
        r.fields.connectors.join(' and '),
        kW !== null && `${printKW(kW)} DC`,
        r.fields.maxACkW !== null && `${r.fields.maxACkW} kW AC`,
      ]);
    }
    case 'adapter':
      return row(
        r.fields.name,
        [`${r.fields.from} to ${r.fields.to}`, r.fields.maxA !== null && `${r.fields.maxA} A`, r.fields.maxV !== null && `${r.fields.maxV} V`],
        r.fields.approved === false ? 'not approved by the car’s maker' : r.fields.approved === null ? 'approval not noted' : null,
      );
    case 'means':
      return row(
        r.fields.label,
        [
          meansLabel(r.fields.kind),
          r.fields.networkId ? `only at ${nameOf(r.fields.networkId)}` : null,
          r.fields.providerId ? nameOf(r.fields.providerId) : null,
        ],
        hasExpired(r.fields.expires, today) ? `expired ${r.fields.expires}` : expiresSoon(r.fields.expires, today) ? `expires ${r.fields.expires}` : null,
      );
    case 'plan': {
      const over = r.fields.until !== null && r.fields.until < today;
      return row(
        r.fields.name,
        [
          nameOf(r.fields.networkId ?? r.fields.providerId),
          r.fields.monthlyFee !== null && `${printMoney(r.fields.monthlyFee, r.fields.currency)} a month`,
          `from ${printSeen(r.fields.from)} ${r.fields.from.slice(0, 4)}`,
        ],
        over ? `ended ${printSeen(r.fields.until as string)} ${(r.fields.until as string).slice(0, 4)}` : null,
      );
    }
    case 'enrolment': {
      const left = stepsLeft(r.fields.steps).length;
      const state =
        r.fields.chargedOn !== null
          ? `charging by it since ${printSeen(r.fields.chargedOn)}`
          : r.fields.enrolledOn !== null
            ? `enrolled ${printSeen(r.fields.enrolledOn)}`
            : 'not enrolled yet';
      const heed =
        r.fields.chargedOn !== null
          ? null
          : r.fields.enrolledOn !== null
            ? 'no charge by it seen yet'
            : left > 0
              ? `${left} ${left === 1 ? 'step' : 'steps'} left`
              : null;
      return row(`${meansLabel(r.fields.kind)} at ${nameOf(r.fields.networkId)}`, [nameOf(r.fields.carId), state], heed);
    }
    case 'network':
    case 'provider':
      return row(r.fields.name, [r.fields.helpline !== null && `helpline ${r.fields.helpline}`]);
  }
}
