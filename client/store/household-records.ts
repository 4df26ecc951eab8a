import { pullChanges } from './keep-record';
import { openPhoneStore } from './phone-store';
import { byType, type Records } from './records-by-type';
import { askWho, readWho } from './who';

/** Places and garage from this device's copy: at once as they are here, then as the server has them. */
export async function householdRecords(onRecords: (records: Records) => void): Promise<void> {
  const who = readWho() ?? (await askWho());
  if (typeof who === 'string') return;
  const store = await openPhoneStore(who.householdId, who.personId);
  try {
    onRecords(byType(await store.getAll('record')));
    if (await pullChanges(store)) onRecords(byType(await store.getAll('record')));
  } finally {
    store.close();
  }
}
