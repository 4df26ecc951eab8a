import { hash, verify } from '@node-rs/argon2';

// OWASP Password Storage Cheat Sheet (from memory): argon2id, 19 MiB, 2 passes, 1 lane.
const COST = { memoryCost: 19456, timeCost: 2, parallelism: 1 } as const;

export const hashPassword = (password: string): Promise<string> => hash(password, COST);

/** Hash of nothing anyone knows: an unknown account costs as long as a wrong password. */
let decoy: Promise<string> | undefined;

/** True when the password fits. With no hash to check against, the time of a check is spent all the same. */
export async function passwordFits(stored: string | null, password: string): Promise<boolean> {
  if (stored) return verify(stored, password);
  decoy ??= hashPassword(crypto.getRandomValues(new Uint8Array(16)).join(''));
  await verify(await decoy, password);
  return false;
}
