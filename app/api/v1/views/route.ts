import { viewForm } from '@/core/compare/saved-view';
import { endForm } from '@/core/compare/watch';
import { removeView, saveView } from '@/server/compare/saved-views';
import { notForRole } from '@/server/http/not-for-role';
import { takesForm } from '@/server/http/signed-in-write';

/** Saves a comparison by name, `{id, name, address}`; one of the same name gives way. */
export const POST = takesForm(viewForm, async (who, form) => notForRole(who.role) ?? saveView(who, form));

/** Removes one, `{id}`. */
export const DELETE = takesForm(endForm, async (who, { id }) => {
  const refused = notForRole(who.role);
  if (!refused) await removeView(who, id);
  return refused;
});
