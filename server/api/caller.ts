import { type OpenHousehold, type TokenOf, tokenOf } from '../accounts/tokens';
import type { Member } from '../accounts/who';
import { answering } from '../http/answer';
import { perMinute } from '../http/rate';
import { whoAsks } from '../http/session-cookie';
import { readQuestion } from '../http/write-guard';
import { asProblem, problem, type Wrong } from './problem';

/** Somebody, or a program of theirs, in one household. `source`: what its events say they come from. */
export type Caller = Member & { householdName: string; currency: string; zone: string; source: string };
export type Needs = 'read' | 'write';

/** Requests a minute of one token, or of one person's pages. */
const PER_MINUTE = 600;
const ofEverything = perMinute(PER_MINUTE);

/**
 * Who calls: by a token in `Authorization: Bearer`, else by the signed-in browser. A token that opens several households says which with `?household=`.
 * @param limit what it counts towards
 * @returns the caller, or the refusal
 */
export async function callerOf(request: Request, needs: Needs, limit: (id: string) => Response | null = ofEverything): Promise<Caller | Response> {
  const header = request.headers.get('authorization');
  if (header === null) {
    const who = await whoAsks();
    if (!who) return noToken('This needs a token, in the header Authorization: Bearer.');
    const late = limit(who.personId);
    return late ? asProblem(late) : { ...who, source: 'browser' };
  }
  const token = /^bearer +(\S+)$/i.exec(header)?.[1];
  const of = token ? await tokenOf(token) : null;
  if (!of) return noToken('This token opens nothing: it is unknown, or was ended.');
  const late = limit(of.tokenId);
  if (late) return asProblem(late);
  if (needs === 'write' && !of.write) return problem(403, 'This token only reads.');
  const household = householdOf(of, new URL(request.url).searchParams.get('household'));
  if (household instanceof Response) return household;
  const { householdId, role, name, currency, zone } = household;
  return { householdId, personId: of.personId, role, householdName: name, currency, zone, source: of.name };
}

const noToken = (title: string): Response => problem(401, title, {}, { 'www-authenticate': 'Bearer realm="Mile Ledger"' });

function householdOf(of: TokenOf, asked: string | null): OpenHousehold | Response {
  const wrong = (status: number, detail: string) => problem(status, detail, { errors: [{ pointer: '?household', detail }] });
  if (asked !== null) return of.households.find((h) => h.householdId === asked) ?? wrong(403, 'This token opens no such household.');
  const [only, ...others] = of.households;
  if (!only) return problem(403, 'This token opens no household any more.');
  return others.length === 0
    ? only
    : wrong(422, `This token opens ${of.households.length} households: say which, one of ${of.households.map((h) => h.householdId).join(', ')}.`);
}

/** Names in the address that are not understood, or said twice: no answer is one to another question. @param takes those that it may hold, beside `household` */
export function notUnderstood(request: Request, takes: readonly string[]): Wrong[] {
  const { searchParams } = new URL(request.url);
  return [...new Set(searchParams.keys())].flatMap((name): Wrong[] => {
    const pointer = `?${name}`;
    if (name !== 'household' && !takes.includes(name)) return [{ pointer, detail: `is not understood here: ${['household', ...takes].join(', ')}` }];
    return searchParams.getAll(name).length > 1 ? [{ pointer, detail: 'is said more than once' }] : [];
  });
}

/**
 * A route of the API: whoever calls is known, and every refusal is a problem.
 * @param wrongIn what is wrong with its address; or the names that it may hold, where that is all
 * @param limit what a call counts towards
 */
export const calling = <P>(
  needs: Needs,
  wrongIn: readonly string[] | ((request: Request) => Wrong[]),
  handle: (caller: Caller, request: Request, params: P) => Promise<Response>,
  limit: (id: string) => Response | null = ofEverything,
) => {
  const guarded = answering(async (request: Request, context: { params: Promise<P> }): Promise<Response> => {
    const caller = await callerOf(request, needs, limit);
    if (caller instanceof Response) return caller;
    const errors = typeof wrongIn === 'function' ? wrongIn(request) : notUnderstood(request, wrongIn);
    return errors.length > 0 ? problem(422, 'The parameters are not understood.', { errors }) : handle(caller, request, await context.params);
  });
  return async (request: Request, context: { params: Promise<P> }): Promise<Response> => {
    const answer = await guarded(request, context);
    return answer.status >= 500 ? asProblem(answer) : answer;
  };
};

/** The JSON of a request, or the refusal. From a browser only out of the application's own pages. */
export async function bodyOf(request: Request): Promise<{ json: unknown } | Response> {
  const body = await readQuestion(request);
  return body.ok ? { json: body.json } : asProblem(body.response);
}
