import { deleteForm, ownNameForm } from '@/core/records/account-forms';
import { askAgain } from '@/server/accounts/accounts';
import { deletePerson } from '@/server/accounts/forget';
import { changeName } from '@/server/accounts/members';
import { clockOffsetMs } from '@/server/clock';
import { answering } from '@/server/http/answer';
import { letOut, notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { shutDoor } from '@/server/http/shut-door';
import { takesForm } from '@/server/http/signed-in-write';

export const dynamic = 'force-dynamic';

/** Who is signed in, and by how much this server's clock is set off from the world's (the demo's day). */
export const GET = answering(async (): Promise<Response> => {
  const who = await whoAsks();
  return who ? Response.json({ ...who, clockOffsetMs }, { headers: { 'cache-control': 'no-store' } }) : notSignedIn();
});

/** One's own name. */
export const PUT = takesForm(ownNameForm, async (who, { name }) => {
  await changeName(who.personId, name);
  return null;
});

/** Deletes one's account: one's own name typed, and the password. */
export const DELETE = takesForm(deleteForm, async (who, { word, password }) => {
  if (word.trim() !== who.name) return Response.json({ fields: { word: `Type ${who.name}` } }, { status: 422 });
  const asked = await askAgain(who.personId, password);
  if (!asked.ok) return asked.wait_s > 0 ? shutDoor(asked, '') : Response.json({ fields: { password: 'This is not your password' } }, { status: 422 });
  const why = await deletePerson(who.personId);
  if (why) return why;
  await letOut();
  return null;
});
