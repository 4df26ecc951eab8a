import { FAULTS } from '../faults/fault-list';
import { likelyFaults } from './likely-faults';

const starting = (meansKind: Parameters<typeof likelyFaults>[1]['meansKind'], adapterOn = false) => likelyFaults('starting', { meansKind, adapterOn });

describe('the faults that are likely now', () => {
  it('are all in the list, each once, and never more than fit', () => {
    for (const phase of ['starting', 'charging', 'stopping'] as const)
      for (const meansKind of ['contactless', 'app', 'rfid', 'autocharge'] as const)
        for (const adapterOn of [false, true]) {
          const codes = likelyFaults(phase, { meansKind, adapterOn });
          expect(new Set(codes).size).toBe(codes.length);
          expect(codes.length).toBeLessThanOrEqual(10);
          for (const code of codes) expect(FAULTS.map((f) => f.code)).toContain(code);
        }
  });
  it('begin with a start error, then what belongs to an adapter and to the means', () => {
    expect(starting('contactless').slice(0, 3)).toEqual(['start_error', 'timed_out', 'card_refused']);
    expect(starting('contactless', true).slice(0, 2)).toEqual(['start_error', 'adapter_not_recognised']);
    expect(starting('app').slice(0, 4)).toEqual(['start_error', 'wrong_stall_started', 'app_unreachable', 'timed_out']);
    expect(starting('rfid')[1]).toBe('rfid_refused');
    expect(starting('autocharge', true).slice(0, 3)).toEqual(['start_error', 'adapter_not_recognised', 'car_not_recognised']);
    expect(starting('app')).toHaveLength(10);
  });
  it('are those of stopping once it was asked to stop, whatever the means', () => {
    expect(likelyFaults('stopping', { meansKind: 'app', adapterOn: true })[0]).toBe('does_not_stop');
    expect(likelyFaults('charging', { meansKind: 'app', adapterOn: true })).not.toContain('wrong_stall_started');
  });
});
