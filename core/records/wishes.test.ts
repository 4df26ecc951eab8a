import { emergencyNumberAt } from './emergency-number';
import { NO_WISHES } from './wishes';
import { readWishes } from './wishes-form';

it.each([
  ['nothing', null, NO_WISHES],
  ['no JSON', '{', NO_WISHES],
  ['a list', '[1]', NO_WISHES],
  ['one of them', '{"distance":"mi"}', { ...NO_WISHES, distance: 'mi' }],
  ['one that is odd beside one that is not', { distance: 'furlong', consumption: 'mi/kWh' }, { ...NO_WISHES, consumption: 'mi/kWh' }],
  ['a number that is none', { emergencyNumber: 'call me' }, NO_WISHES],
  ['a number', { emergencyNumber: ' 911 ', photoPosition: true }, { ...NO_WISHES, emergencyNumber: '911', photoPosition: true }],
])('wishes read from %s', (_what, kept, wishes) => expect(readWishes(kept)).toEqual(wishes));

it('the number that is wished for comes after the site’s own and before the country’s', () => {
  const site = { emergencyNumber: null, zone: 'Europe/London' };
  expect(emergencyNumberAt(site, 'UTC')).toBe('999');
  expect(emergencyNumberAt(site, 'UTC', '112')).toBe('112');
  expect(emergencyNumberAt({ ...site, emergencyNumber: '111' }, 'UTC', '112')).toBe('111');
  expect(emergencyNumberAt(null, 'America/Chicago', null)).toBe('911');
});
