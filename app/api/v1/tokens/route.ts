import { endTokenForm, tokenForm } from '@/core/records/token-form';
import { endToken, makeToken } from '@/server/accounts/tokens';
import { noStore } from '@/server/http/answer';
import { takesForm } from '@/server/http/signed-in-write';

/** Makes a token for a program of one's own; it is told this once. Only a signed-in browser does that: no token makes another. */
export const POST = takesForm(tokenForm, async (who, form) => {
  const made = await makeToken(who.personId, form);
  return 'token' in made ? Response.json(made, { status: 201, headers: noStore }) : made.reason;
});

/** Ends a token of one's own at once. */
export const DELETE = takesForm(endTokenForm, async (who, { id }) => {
  await endToken(who.personId, id);
  return null;
});
