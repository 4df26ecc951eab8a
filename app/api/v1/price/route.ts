import { priceCase } from '@/core/tariff/price-case';
import { bodyOf, calling } from '@/server/api/caller';
import { noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';

const take = perMinute(1_200);

/**
 * Prices a session, a month of them, several plans or where two of them break even: docs/prices.md. Changes nothing.
 * With `?lines=yes` the answer about a session has its lines, too. 422: what cannot be priced, as a list of `{path, reason}`.
 */
export const POST = calling(
  'read',
  ['lines'],
  async (_caller, request) => {
    const body = await bodyOf(request);
    if (body instanceof Response) return body;
    const priced = priceCase(body.json, new URL(request.url).searchParams.get('lines') === 'yes');
    return priced.ok ? Response.json(priced.answer, { headers: noStore }) : Response.json(priced.problems, { status: 422, headers: noStore });
  },
  take,
);
