import tzLookup from 'tz-lookup';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';

export const dynamic = 'force-dynamic';

/** IANA zone of a position in degrees, `Etc/…` at sea. The table of zones stays here: it is a tenth of what a phone would carry. */
export const GET = answering(async (request: Request): Promise<Response> => {
  if (!(await whoAsks())) return notSignedIn();
  const asked = new URL(request.url).searchParams;
  const degrees = (name: string, most: number) => {
    const value = Number(asked.get(name)?.trim() || Number.NaN);
    return Math.abs(value) <= most ? value : null;
  };
  const [latitude, longitude] = [degrees('latitude', 90), degrees('longitude', 180)];
  if (latitude === null) return Response.json({ error: 'latitude: must be degrees between −90 and 90' }, { status: 422 });
  if (longitude === null) return Response.json({ error: 'longitude: must be degrees between −180 and 180' }, { status: 422 });
  return Response.json({ zone: tzLookup(latitude, longitude) }, { headers: { 'cache-control': 'no-store' } });
});
