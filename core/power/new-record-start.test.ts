import { newRecordStart } from './new-record-start';

const at = { currency: 'EUR', today: '2025-10-15', cars: [{ id: 'badger' }] };

it('a new record starts from the likeliest', () => {
  expect(newRecordStart('car', at)).toEqual({ connectors: ['CCS2'] });
  expect(newRecordStart('adapter', at)).toEqual({ from: 'CHAdeMO', to: 'CCS2' });
  expect(newRecordStart('means', at)).toEqual({ kind: 'contactless' });
  expect(newRecordStart('plan', at)).toEqual({ currency: 'EUR', from: '2025-10-15' });
  expect(newRecordStart('rate', at)).toEqual({ into: 'EUR', on: '2025-10-15' });
  expect(newRecordStart('otherprice', at)).toEqual({ what: 'home', unit: 'litre', currency: 'EUR', from: '2025-10-15' });
  expect(newRecordStart('provider', at)).toEqual({});
});
it('an enrolment is of the only car, and its steps are those of its kind', () => {
  expect(newRecordStart('enrolment', at)).toMatchObject({ kind: 'autocharge', carId: 'badger' });
  expect(newRecordStart('enrolment', { ...at, kind: 'plug_and_charge', cars: [] })).toMatchObject({ kind: 'plug_and_charge', carId: null });
  expect(newRecordStart('enrolment', { ...at, cars: [{ id: 'a' }, { id: 'b' }] })).toMatchObject({ carId: null });
  expect(newRecordStart('enrolment', at).steps).not.toEqual(newRecordStart('enrolment', { ...at, kind: 'plug_and_charge' }).steps);
});
