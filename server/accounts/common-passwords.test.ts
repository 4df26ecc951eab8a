import { passwordProblem } from './common-passwords';

const own = ['ines.kolar@example.invalid', 'Ines Kolar', 'Kolar Organ Works'];
describe('a password', () => {
  it.each(['1234567890', 'password123', 'Password123!', 'qwertyuiop', 'iloveyou2026'])('among those tried first is refused: %s', (p) =>
    expect(passwordProblem(p, own)).toMatch(/tried first/),
  );
  it.each(['ines.kolar@example.invalid', 'INES.KOLAR', 'inesKolar', 'kolarorganworks', 'x ines.kolar@example.invalid'])('of one’s own is refused: %s', (p) =>
    expect(passwordProblem(p, own)).toMatch(/own name or address/),
  );
  it.each(['zzzzzzzzzzzz', 'zqzqzqzqzqzq', 'xyvxyvxyvxyv'])('that is one thing over and over is refused: %s', (p) =>
    expect(passwordProblem(p, own)).toMatch(/over and over/),
  );
  it('that is the ledger’s name is refused', () => expect(passwordProblem('Mile Ledger 2026', own)).toMatch(/tried first|name of this ledger/));
  it.each(['a long enough one', 'copper beech at dawn', 'kolar tunes bells', 'šumi gozd zvečer'])('that is none of these is let in: %s', (p) =>
    expect(passwordProblem(p, own)).toBeNull(),
  );
});
