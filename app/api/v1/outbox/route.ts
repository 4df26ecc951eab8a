import { logSecurity } from '@/server/accounts/security-log';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';
import { householdRev } from '@/server/outbox/household-rev';
import { takeBatch } from '@/server/outbox/take-batch';

/** Takes a phone's outbox: events and records in order. Answers for each item; 422 only when the batch itself is not understood. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const result = await takeBatch(who, body.json);
  if (!result.ok) return Response.json({ error: result.reason }, { status: 422 });
  if (result.results.some((r) => r.code === 'other_household')) await logSecurity({ kind: 'refused', ...who });
  // After a restore a phone learns by this that what it sent before may be gone.
  const { epoch } = await householdRev(who.householdId);
  return Response.json({ rev: result.rev, epoch, results: result.results });
});
