import { someWishes } from '@/core/records/wishes-form';
import { changeWishes } from '@/server/accounts/members';
import { takesForm } from '@/server/http/signed-in-write';

/** What a person wishes for on every device of theirs: units, the emergency number, whether photos keep their position, the usual stop. What is not named stays. */
export const PUT = takesForm(someWishes, async (who, wishes) => {
  await changeWishes(who.personId, wishes);
  return null;
});
