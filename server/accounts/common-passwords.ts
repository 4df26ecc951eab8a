import { dictionary } from '@zxcvbn-ts/language-common';

/** Some 49,000 passwords that people use, as a package ships them; those too short to be let in anyway are left out. */
let common: Set<string> | undefined;
const isCommon = (word: string): boolean => {
  common ??= new Set(dictionary['passwords-common'].filter((p) => p.length >= 8));
  return common.has(word);
};

/**
 * Why a password may not be set, or `null`. Not a common one, nor one with figures put behind it; not the person's own
 * address or names; not one sign or run over and over.
 * @param own e-mail address, names of person and household
 */
export function passwordProblem(password: string, own: readonly string[]): string | null {
  const word = password.toLowerCase().trim();
  if (isCommon(word) || isCommon(word.replace(/[\d\s!?.]+$/, ''))) return 'This is among the passwords that are tried first. Choose another.';
  if (/^(.{1,3})\1+.{0,2}$/.test(word)) return 'This is one thing over and over. Choose another.';
  const mine = own.flatMap((o) => [o.toLowerCase(), o.toLowerCase().split('@')[0] as string]).filter((o) => o.length >= 4);
  if (mine.some((o) => word === o || word.replace(/[^\p{L}\d]/gu, '') === o.replace(/[^\p{L}\d]/gu, '') || (o.includes('@') && word.includes(o))))
    return 'This is your own name or address. Choose another.';
  if (['mile ledger', 'mileledger', 'mile-ledger'].some((o) => word.replace(/[\d\s!?.]+$/, '') === o))
    return 'This is the name of this ledger. Choose another.';
  return null;
}
