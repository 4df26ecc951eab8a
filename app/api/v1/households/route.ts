import { householdForm } from '@/core/records/account-forms';
import { goTo, startHousehold } from '@/server/accounts/members';
import { knock } from '@/server/accounts/throttle';
import { shutDoor } from '@/server/http/shut-door';
import { takesForm } from '@/server/http/signed-in-write';

/** Makes another household of one's own, and goes there. */
export const POST = takesForm(householdForm, async (who, form) => {
  const { wait_s } = await knock([{ door: 'sign_up', key: who.personId }]);
  if (wait_s > 0) return shutDoor({ ok: false, wait_s }, '');
  await goTo(who, await startHousehold(who.personId, form));
  return null;
});
