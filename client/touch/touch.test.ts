import { memory } from '@/client/store/fixtures/memory-storage';
import { NO_WISHES } from '@/core/records/wishes';
import { forgetHabits, lastCar, meansUsedAt, recentSites, rememberMeans, rememberPullIn } from '../store/habits';
import { readWho, writeWho } from '../store/who';
import { deviceId } from './page-life';
import { phoneNow, touchTime } from './touch-time';

beforeEach(() => memory.clear());
afterEach(() => jest.restoreAllMocks());

describe('the time of a touch', () => {
  it('is that of the finger, however late the handler runs', () => {
    jest.spyOn(Date, 'now').mockReturnValue(1_760_000_010_000);
    jest.spyOn(performance, 'now').mockReturnValue(84_000);
    expect(touchTime(83_600)).toEqual({ at: 1_760_000_009_600, mono: 83_600 });
  });
  it('is set off as the server’s clock is', () => {
    jest.spyOn(Date, 'now').mockReturnValue(1_760_000_000_000);
    writeWho({
      householdId: 'h',
      personId: 'p',
      role: 'owner' as const,
      wishes: NO_WISHES,
      name: '',
      householdName: '',
      currency: 'EUR',
      zone: 'UTC',
      clockOffsetMs: -86_400_000,
    });
    expect(phoneNow()).toBe(1_760_000_000_000 - 86_400_000);
  });
});

describe('what the phone remembers', () => {
  it('the device is the same after every reload', () => expect(deviceId()).toBe(deviceId()));
  it('a person that is no person is nobody', () => {
    memory.set('mile.who', '{"householdId":');
    expect(readWho()).toBeNull();
    memory.set('mile.who', '{"name":"x"}');
    expect(readWho()).toBeNull();
  });
  it('sites newest first, each once; the car; the means by network; until signing out', () => {
    rememberPullIn('a', 'heron');
    rememberPullIn('b', undefined);
    rememberPullIn('a', undefined);
    rememberMeans('n', { meansKind: 'app' });
    expect([recentSites(), lastCar(), meansUsedAt('n'), meansUsedAt('m')]).toEqual([['a', 'b'], 'heron', { meansKind: 'app' }, undefined]);
    forgetHabits();
    expect([recentSites(), lastCar(), meansUsedAt('n')]).toEqual([[], null, undefined]);
  });
});
