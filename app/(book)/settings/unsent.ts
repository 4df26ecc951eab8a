import { sendOutbox } from '@/client/outbox/send-outbox';
import { sendPhotos, waitingPhotos } from '@/client/photos/photo-outbox';
import { openPhoneStore } from '@/client/store/phone-store';

/** What of this person's is not at the server yet, after one more try to send it; refused and unsettled ones too. */
export async function unsentOf(who: { householdId: string; personId: string }): Promise<number> {
  const store = await openPhoneStore(who.householdId, who.personId);
  try {
    if ((await sendOutbox(store)) === 'sent') await sendPhotos(store);
    const refused = (await store.getAll('event')).filter((e) => e.state === 'refused').length;
    return (await store.count('outbox')) + (await waitingPhotos(store)) + refused + (await store.count('unsettled'));
  } finally {
    store.close();
  }
}
