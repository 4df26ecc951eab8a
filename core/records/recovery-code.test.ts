import { printRecoveryCode, RECOVERY_SIGNS, readRecoveryCode, recoveryCode } from './recovery-code';

describe('a recovery code', () => {
  it('has twelve signs, each as likely as any other', () => {
    const all = Uint8Array.from({ length: 256 }, (_, i) => i);
    const counts = new Map<string, number>();
    for (let from = 0; from < 240; from += 12)
      for (const sign of recoveryCode(all.slice(from, from + 12)) as string) counts.set(sign, (counts.get(sign) ?? 0) + 1);
    expect([...counts.keys()].sort()).toEqual([...RECOVERY_SIGNS].sort());
    expect([...new Set(counts.values())]).toEqual([8]);
  });
  it('leaves out the bytes that would favour the first signs', () => {
    expect(recoveryCode(new Uint8Array(40).fill(240))).toBeNull();
    expect(recoveryCode(Uint8Array.from([239, 240, 255, ...new Array(11).fill(0)]))).toBe('Z22222222222');
    expect(recoveryCode(new Uint8Array(11))).toBeNull();
    expect(recoveryCode(new Uint8Array(24))).toBe('222222222222');
  });
  it('is read however it was typed', () => {
    expect(printRecoveryCode('23456789ABCD')).toBe('2345-6789-ABCD');
    expect(readRecoveryCode(' 2345 6789-abcd ')).toBe('23456789ABCD');
  });
});
