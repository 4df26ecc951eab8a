import { HeldReads } from './held-reads';

let at = 0;
jest.mock('../clock', () => ({ now: () => at }));

describe('what was read of a file', () => {
  beforeEach(() => {
    at = 1_000_000;
  });
  it('is held for the parts that follow, under each of its keys, for that person alone', () => {
    const held = new HeldReads<string>();
    held.keep('ines', ['a', 'b'], 'read');
    expect([held.of('ines', 'a'), held.of('ines', 'b'), held.of('ines', 'c'), held.of('tone', 'a')]).toEqual(['read', 'read', null, null]);
  });
  it('is given up after five minutes, and asked for anew', () => {
    const held = new HeldReads<string>();
    held.keep('ines', ['a'], 'read');
    at += 5 * 60_000;
    expect(held.of('ines', 'a')).toBe('read');
    at += 1;
    expect(held.of('ines', 'a')).toBeNull();
    held.keep('ines', ['a'], 'again');
    expect(held.of('ines', 'a')).toBe('again');
  });
  it('is not kept for somebody who does not ask again', () => {
    jest.useFakeTimers();
    const held = new HeldReads<string>();
    held.keep('ines', ['a'], 'read');
    at += 4 * 60_000;
    jest.advanceTimersByTime(4 * 60_000);
    held.keep('tone', ['a'], 'later');
    at += 60_001;
    jest.advanceTimersByTime(60_001);
    at = 1_000_000;
    // Asked by a clock that was put back: what is gone is gone.
    expect([held.of('ines', 'a'), held.of('tone', 'a')]).toEqual([null, 'later']);
    jest.useRealTimers();
  });
  it('is the last of each person, of two people at once: the oldest goes', () => {
    const held = new HeldReads<string>();
    held.keep('ines', ['a'], '1');
    held.keep('tone', ['a'], '2');
    held.keep('ines', ['b'], '3');
    held.keep('maja', ['a'], '4');
    expect([held.of('ines', 'a'), held.of('ines', 'b'), held.of('tone', 'a'), held.of('maja', 'a')]).toEqual([null, '3', null, '4']);
  });
  it('is forgotten when something was taken back', () => {
    const held = new HeldReads<string>();
    held.keep('ines', ['a'], '1');
    held.forget();
    expect(held.of('ines', 'a')).toBeNull();
  });
});
