import { pool } from '@/server/db/pool';

export const dynamic = 'force-dynamic';

/** Answers when application and database both do. */
export async function GET(): Promise<Response> {
  try {
    await pool().query('SELECT 1');
    return Response.json({ ok: true });
  } catch {
    return Response.json({ ok: false }, { status: 503 });
  }
}
