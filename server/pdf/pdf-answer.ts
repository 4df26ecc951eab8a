import type { SignedIn } from '../accounts/sessions';
import { answering, noStore } from '../http/answer';
import { perMinute } from '../http/rate';
import { notSignedIn, whoAsks } from '../http/session-cookie';

const limit = perMinute(60);

/**
 * A route that answers with a document. @param param the part of the address that names it @param what it is called: in the file's name, and where there is none
 * @param make the document; `null` for an id that is unknown in this household
 */
export const answersPdf = <P extends string>(param: P, what: string, make: (who: SignedIn, id: string) => Promise<Buffer | null>) =>
  answering(async (_request: Request, { params }: { params: Promise<Record<P, string>> }): Promise<Response> => {
    const who = await whoAsks();
    if (!who) return notSignedIn();
    const late = limit(who.personId);
    if (late) return late;
    const id = (await params)[param];
    const bytes = await make(who, id);
    if (!bytes) return Response.json({ error: `There is no such ${what}.` }, { status: 404, headers: noStore });
    return new Response(new Uint8Array(bytes), {
      headers: { ...noStore, 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${what}-${id}.pdf"` },
    });
  });
