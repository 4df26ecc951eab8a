import { priceCase } from '@/core/tariff/price-case';
import { callerOf } from '@/server/api/caller';
import { answering, noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';
import { readQuestion } from '@/server/http/write-guard';

const take = perMinute(1_200);

/**
 * Prices a session, a month of them, several plans or where two of them break even: docs/prices.md. Changes nothing.
 * With `?lines=yes` the answer about a session has its lines, too. 422: what cannot be priced, as a list of `{path, reason}`.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await callerOf(request, 'read', take);
  if (who instanceof Response) return who;
  const body = await readQuestion(request);
  if (!body.ok) return body.response;
  const priced = priceCase(body.json, new URL(request.url).searchParams.get('lines') === 'yes');
  return priced.ok ? Response.json(priced.answer, { headers: noStore }) : Response.json(priced.problems, { status: 422, headers: noStore });
});
