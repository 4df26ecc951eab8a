import { sendOutbox } from '@/client/outbox/send-outbox';
import { sendPhotos } from '@/client/photos/photo-outbox';
import { openPhoneStore, unsentIn } from '@/client/store/phone-store';

/** What of this person's is not at the server yet, after one more try to send it; refused and unsettled ones too. */
export async function unsentOf(who: { householdId: string; personId: string }): Promise<number> {
  const store = await openPhoneStore(who.householdId, who.personId);
  try {
    if ((await sendOutbox(store)) === 'sent') await sendPhotos(store);
    return await unsentIn(store);
  } finally {
    store.close();
  }
}
