const ASKED = 'mile.askedToLast';
const WEEK_MS = 7 * 86_400_000;

/**
 * Asks the browser to clear nothing away here when it needs room (Storage Standard, `persist()`): what is recorded without a network stands in
 * this browser alone until it is sent. Some browsers ask their user: once a week at most. A refusal changes nothing.
 * @param nowMs of this device
 */
export async function askToLast(
  nowMs: number,
  storage: Pick<StorageManager, 'persist' | 'persisted'> | undefined = globalThis.navigator?.storage,
): Promise<void> {
  try {
    const asked = Number(localStorage.getItem(ASKED) ?? Number.NaN);
    if (!storage?.persist || Math.abs(nowMs - asked) < WEEK_MS || (await storage.persisted())) return;
    localStorage.setItem(ASKED, String(nowMs));
    await storage.persist();
  } catch {
    // A browser that lets nothing be kept says so where something is kept.
  }
}
