import { endForm, watchForm } from '@/core/compare/watch';
import { endWatch, putOnWatch } from '@/server/compare/watches';
import { notForRole } from '@/server/http/not-for-role';
import { takesForm } from '@/server/http/signed-in-write';

/** Puts a pair of a comparison on watch, `{id, by, a, b, figure}`, from now on. Repeating it changes nothing. */
export const POST = takesForm(watchForm, async (who, form) => notForRole(who.role) ?? putOnWatch(who, form));

/** Ends a watch, `{id}`. */
export const DELETE = takesForm(endForm, async (who, { id }) => {
  const refused = notForRole(who.role);
  if (!refused) await endWatch(who, id);
  return refused;
});
