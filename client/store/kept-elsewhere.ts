import { deleteDB } from 'idb';
import { openPhoneStore, type PhoneStore, storeName, unsentIn, type Whose } from './phone-store';

/** What waits on this device in the store of somebody else, or of the same person in another household. `whose`: `null` where nothing says. */
export type KeptElsewhere = { householdId: string; personId: string; whose: Whose | null; unsent: number };

const ID = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}';
const NAME = new RegExp(`^mile-(${ID})-(${ID})$`);

/** Opens the store for one piece of work. */
export async function inStoreOf<T>(of: { householdId: string; personId: string }, work: (store: PhoneStore) => Promise<T>): Promise<T> {
  const store = await openPhoneStore(of.householdId, of.personId);
  try {
    return await work(store);
  } finally {
    store.close();
  }
}

/**
 * Everything on this device that the server does not have and that does not go while this person is signed in in this household.
 * Nothing where the browser does not tell its stores, or one cannot be opened: it stays as it is.
 */
export async function keptElsewhere(here: { householdId: string; personId: string }): Promise<KeptElsewhere[]> {
  const own = storeName(here.householdId, here.personId);
  const all = (await indexedDB.databases?.().catch(() => [])) ?? [];
  const out: KeptElsewhere[] = [];
  for (const { name = '' } of all) {
    const [, householdId, personId] = NAME.exec(name) ?? [];
    if (!householdId || !personId || name === own) continue;
    const of = { householdId, personId };
    const kept = await inStoreOf(of, async (store) => ({
      whose: ((await store.get('meta', 'whose')) as Whose | undefined) ?? null,
      unsent: await unsentIn(store),
    })).catch(() => null);
    if (kept && kept.unsent > 0) out.push({ ...of, ...kept });
  }
  return out;
}

/** Takes a store off this device, with all that waits in it. @throws where the browser refuses */
export const forgetStore = (of: { householdId: string; personId: string }): Promise<void> => deleteDB(storeName(of.householdId, of.personId));
