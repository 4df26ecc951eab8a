import { usualHandshakes, usualHere, type WaitedAttempt } from './usual-handshake';

const one = (handshake_s: number | null, more: Partial<WaitedAttempt> = {}): WaitedAttempt => ({
  stallId: 's1',
  networkId: 'n',
  meansKind: 'contactless',
  outcome: handshake_s === null ? 'failed' : 'power',
  late: false,
  handshake_s,
  ...more,
});

describe('the usual handshake', () => {
  it('is the median over all attempts of this stall and means', () => {
    const usual = usualHandshakes([one(20), one(30), one(40), one(500, { meansKind: 'app' })]);
    expect(usualHere(usual, 's1', 'n', 'contactless')).toEqual({ s: 30, attempts: 3, of: 'stall' });
  });
  it('counts attempts without power as never: fewer than half started is no time', () => {
    const usual = usualHandshakes([one(10), one(null), one(null)]);
    expect(usualHere(usual, 's1', 'n', 'contactless')).toEqual({ s: null, attempts: 3, of: 'stall' });
  });
  it('leaves late looks and open attempts out', () => {
    const usual = usualHandshakes([one(20), one(30), one(40), one(1, { late: true }), one(2, { outcome: 'open' })]);
    expect(usual['s1 contactless']).toEqual({ s: 30, attempts: 3 });
  });
  it('says the network’s where the stall has too few, and nothing where both have', () => {
    const usual = usualHandshakes([one(20), one(30, { stallId: 's2' }), one(50, { stallId: 's3' })]);
    expect(usualHere(usual, 's1', 'n', 'contactless')).toEqual({ s: 30, attempts: 3, of: 'network' });
    expect(usualHere(usual, 's1', 'other', 'contactless')).toBeNull();
    expect(usualHere(usual, null, null, 'app')).toBeNull();
  });
});
