import { idOf } from '../visit/fixtures/story';
import { type GarageType, garageRow } from './garage-row';
import { recordItem } from './record-schema';

const row = (type: GarageType, said: object, archived = false) =>
  garageRow(
    { ...recordItem(type, idOf(1), said as never), rev: 1, archived } as never,
    (id) => (id === idOf(2) ? 'Copperbeech' : id === idOf(3) ? 'Heron 62' : ''),
    '2025-10-15',
  );

describe('a row of the garage', () => {
  it('a car by battery, inlets and power', () =>
    expect(
      row('car', {
        name: 'Heron 62',
        usableKWh: 62,
        connectors: ['CCS2'],
        curve: [
          [0, 92],
          [20, 121],
        ],
        maxACkW: 11,
      }),
    ).toMatchObject({ name: 'Heron 62', line: '62 kWh, CCS2, 121 kW DC, 11 kW AC', heed: null }));
  it('an adapter whose approval is unknown or denied is heeded', () => {
    const a = { name: 'A', from: 'CHAdeMO', to: 'CCS2', maxA: 200 };
    expect(row('adapter', a)).toMatchObject({ line: 'CHAdeMO to CCS2, 200 A', heed: 'approval not noted' });
    expect(row('adapter', { ...a, approved: false }).heed).toMatch(/not approved/);
    expect(row('adapter', { ...a, approved: true }).heed).toBeNull();
  });
  it.each([
    ['2025-09', 'expired 2025-09'],
    ['2025-10', 'expires 2025-10'],
    ['2025-12', 'expires 2025-12'],
    ['2026-01', null],
    [null, null],
  ])('a card of %s', (expires, heed) => expect(row('means', { kind: 'contactless', label: 'Card', expires })).toMatchObject({ heed }));
  it('a plan that ended says so', () =>
    expect(row('plan', { name: 'Member', networkId: idOf(2), monthlyFee: '12.99', currency: 'EUR', from: '2025-01-01', until: '2025-06-30' })).toMatchObject({
      line: 'Copperbeech, €12.99 a month, from 1 Jan 2025',
      heed: 'ended 30 Jun 2025',
    }));
  it('enrolled and charging are two results', () => {
    const e = { kind: 'autocharge', carId: idOf(3), networkId: idOf(2), steps: [{ where: 'home', act: 'Add the car', shows: '', doneOn: null }] };
    expect(row('enrolment', e)).toMatchObject({ name: 'Autocharge at Copperbeech', line: 'Heron 62, not enrolled yet', heed: '1 step left' });
    expect(row('enrolment', { ...e, enrolledOn: '2025-05-02' }).heed).toBe('no charge by it seen yet');
    expect(row('enrolment', { ...e, chargedOn: '2025-05-04' })).toMatchObject({ line: 'Heron 62, charging by it since 4 May', heed: null });
  });
});
