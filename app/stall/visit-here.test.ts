import { memory } from '@/client/store/fixtures/memory-storage';
import type { KeptEvent } from '@/client/store/phone-store';
import { IN, idOf, PHONE, SECOND_PHONE, type Step, story } from '@/core/visit/fixtures/story';
import { lastToUndo, looksOn } from './visit-here';

beforeEach(() => memory.set('mile.device', PHONE));
const kept = (...steps: Step[]): KeptEvent[] => story(...steps).map((event) => ({ event, state: 'sent' }));
const second = { deviceId: SECOND_PHONE, role: 'observer' as const };

describe('undo', () => {
  it('takes back this phone’s last event, never another’s, never a taking back', () => {
    expect(lastToUndo(kept(IN, [10, 'plugged'], [12, 'plugged', {}, second]))?.event.id).toBe(idOf(101));
    expect(lastToUndo(kept(IN, [10, 'plugged'], [20, 'withdrawal', { target: idOf(101) }]))?.event.kind).toBe('pulled_in');
    expect(lastToUndo(kept([0, 'pulled_in', {}, second]))).toBeNull();
  });
  it('can take back a correction', () => {
    expect(lastToUndo(kept(IN, [10, 'correction', { target: idOf(100), at: 5 }]))?.event.kind).toBe('correction');
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
});
