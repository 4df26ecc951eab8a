import { openApi } from '@/server/api/openapi';

export const dynamic = 'force-dynamic';

/** The API described. It says nothing about anybody. */
export const GET = (request: Request): Response => {
  const host = request.headers.get('host') ?? 'localhost';
  const scheme = request.headers.get('x-forwarded-proto') ?? 'http';
  return Response.json(openApi(/^[\w.:[\]-]+$/.test(host) ? `${scheme === 'https' ? 'https' : 'http'}://${host}` : ''), {
    headers: { 'cache-control': 'no-cache', 'content-disposition': 'attachment; filename="mile-ledger.openapi.json"' },
  });
};
