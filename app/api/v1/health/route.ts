import { databaseAnswers } from '@/server/db/pool';

export const dynamic = 'force-dynamic';

/** Answers when application and database both do; within a second when the database hangs. */
export async function GET(): Promise<Response> {
  return (await databaseAnswers(800)) ? Response.json({ ok: true }) : Response.json({ ok: false }, { status: 503, headers: { 'retry-after': '5' } });
}
