import { checkForm } from '@/core/records/account-forms';
import type * as z from '@/core/units/schema';
import type { SignedIn } from '../accounts/sessions';
import { answering, noStore } from './answer';
import { notSignedIn, whoAsks } from './session-cookie';
import { guardWrite } from './write-guard';

/**
 * A route that takes a form from somebody who is signed in: guarded, checked by the schema that the page uses, answered by field.
 * @param take what becomes of it: an answer of its own, why not as one sentence, or `null` when it is done
 */
export const takesForm = <T>(schema: z.ZodMiniType<T>, take: (who: SignedIn, form: T) => Promise<Response | string | null>) =>
  answering(async (request: Request): Promise<Response> => {
    const who = await whoAsks();
    if (!who) return notSignedIn();
    const body = await guardWrite(request);
    if (!body.ok) return body.response;
    const form = checkForm(schema, body.json);
    if (!form.ok) return Response.json({ fields: form.fields }, { status: 422, headers: noStore });
    const answer = await take(who, form.data);
    if (answer instanceof Response) return answer;
    return answer === null ? Response.json({ ok: true }, { headers: noStore }) : Response.json({ error: answer }, { status: 422, headers: noStore });
  });
