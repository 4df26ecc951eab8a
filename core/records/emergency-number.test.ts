import { emergencyNumber, emergencyNumberAt } from './emergency-number';

describe('the number for help', () => {
  // 112 in the European Union: Directive (EU) 2018/1972, Article 109 (from memory). 911, 999, 000 and 111: common practice, no source.
  it.each([
    ['Europe/Ljubljana', '112'],
    ['Europe/Vienna', '112'],
    ['Atlantic/Canary', '112'],
    ['Europe/London', '999'],
    ['America/New_York', '911'],
    ['America/Toronto', '911'],
    ['Pacific/Honolulu', '911'],
    ['US/Pacific', '911'],
    ['Australia/Sydney', '000'],
    ['Pacific/Auckland', '111'],
    ['Asia/Tokyo', '119'],
    ['Asia/Kolkata', '112'],
    ['UTC', '112'],
    ['Europe/Londonderry', '112'],
  ])('in %s is %s', (zone, number) => expect(emergencyNumber(zone)).toBe(number));
  it('is the site’s own where one is noted, else that of its zone, else that of where the phone is', () => {
    expect(emergencyNumberAt({ zone: 'Europe/London', emergencyNumber: '01 555' }, 'UTC')).toBe('01 555');
    expect(emergencyNumberAt({ zone: 'Europe/London', emergencyNumber: null }, 'UTC')).toBe('999');
    expect(emergencyNumberAt({ zone: 'Europe/London' }, 'UTC')).toBe('999');
    expect(emergencyNumberAt(null, 'America/Denver')).toBe('911');
  });
});
