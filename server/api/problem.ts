import { noStore } from '../http/answer';

/** One thing that is wrong, and where: a JSON pointer (RFC 6901) into the body, or `?name` for a parameter. */
export type Wrong = { pointer: string; detail: string };

/** A refusal as RFC 9457 has it, with everything that is wrong. */
export const problem = (
  status: number,
  title: string,
  more: { detail?: string; errors?: readonly Wrong[]; reference?: string } = {},
  headers: Record<string, string> = {},
): Response =>
  new Response(JSON.stringify({ type: 'about:blank', title, status, ...more }), {
    status,
    headers: { ...noStore, 'content-type': 'application/problem+json', ...headers },
  });

/** An answer of the application's own in that form. */
export async function asProblem(answer: Response): Promise<Response> {
  const body = (await answer.json().catch(() => ({}))) as { error?: string; reference?: string };
  const wait = answer.headers.get('retry-after');
  return problem(answer.status, body.error ?? 'It was refused.', body.reference ? { reference: body.reference } : {}, wait ? { 'retry-after': wait } : {});
}
