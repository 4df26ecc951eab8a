import { memory } from '@/client/store/fixtures/memory-storage';
import type { KeptEvent } from '@/client/store/phone-store';
import { IN, idOf, PHONE, SECOND_PHONE, type Step, story, T0 } from '@/core/visit/fixtures/story';
import { looksOn, silentFor, toUndo } from './visit-here';

beforeEach(() => memory.set('mile.device', PHONE));
const kept = (...steps: Step[]): KeptEvent[] => story(...steps).map((event) => ({ event, state: 'sent' }));
const second = { deviceId: SECOND_PHONE, role: 'observer' as const };

describe('undo', () => {
  it('takes back this phone’s last event, never another’s, never a taking back', () => {
    expect(toUndo(kept(IN, [10, 'plugged'], [12, 'plugged', {}, second])).map((k) => k.event.id)).toEqual([idOf(101)]);
    expect(toUndo(kept(IN, [10, 'plugged'], [20, 'withdrawal', { target: idOf(101) }])).map((k) => k.event.kind)).toEqual(['pulled_in']);
    expect(toUndo(kept([0, 'pulled_in', {}, second]))).toEqual([]);
  });
  it('takes back everything that one touch made, and nothing of the touch before', () => {
    const touch = kept(IN, [10, 'plugged'], [10, 'means_shown', { meansKind: 'autocharge' }]);
    expect(toUndo(touch).map((k) => k.event.kind)).toEqual(['means_shown', 'plugged']);
  });
  it('can take back a correction', () => {
    expect(toUndo(kept(IN, [10, 'correction', { target: idOf(100), at: 5 }])).map((k) => k.event.kind)).toEqual(['correction']);
  });
});

describe('looking on', () => {
  it('is what a phone does that did not begin the visit, and goes on doing', () => {
    expect(looksOn(kept(IN, [10, 'plugged']))).toBe(false);
    expect(looksOn(kept([0, 'pulled_in', {}, { deviceId: SECOND_PHONE }]))).toBe(true);
    memory.set('mile.device', SECOND_PHONE);
    expect(looksOn(kept(IN, [10, 'plugged', {}, second]))).toBe(true);
    expect(looksOn([])).toBe(false);
  });
  it('a correction made on another device does not make its maker the recorder', () => {
    memory.set('mile.device', SECOND_PHONE);
    expect(looksOn(kept(IN, [10, 'correction', { target: idOf(100), at: 5 }, { deviceId: SECOND_PHONE }]))).toBe(true);
  });
  it('ends when this phone records, and begins anew when another one took over since', () => {
    memory.set('mile.device', SECOND_PHONE);
    const took = kept(IN, [10, 'plugged', {}, second], [700, 'unplugged', {}, { deviceId: SECOND_PHONE }]);
    expect(looksOn(took)).toBe(false);
    memory.set('mile.device', PHONE);
    expect(looksOn(took)).toBe(true);
  });
  it('is not what the recorder does because somebody typed a bill at a desk', () => {
    expect(
      looksOn(kept(IN, [900, 'bill', { sessions: [], amount: '1', currency: 'EUR', state: 'charged' }, { deviceId: SECOND_PHONE, origin: 'typed' }])),
    ).toBe(false);
  });
  it('knows for how long the one that records was silent', () => {
    memory.set('mile.device', SECOND_PHONE);
    expect(silentFor(kept(IN, [10, 'plugged'], [300, 'plugged', {}, second]), T0 + 700_000)).toBe(690);
    expect(silentFor(kept([300, 'plugged', {}, second]), T0)).toBe(Number.POSITIVE_INFINITY);
  });
});
