import { callerOf } from '@/server/api/caller';
import { SHEET_NAMES, sheetOf } from '@/server/formats/export-sheets';
import { answering, noStore } from '@/server/http/answer';

export const dynamic = 'force-dynamic';

/** A sheet of the household as CSV, written as it is read: `visits.csv`, `attempts.csv`, `events.csv`, `readings.csv`, `bills.csv`, `sites.csv`, `tariffs.csv`. */
export const GET = answering(async (request: Request, { params }: { params: Promise<{ table: string }> }): Promise<Response> => {
  const who = await callerOf(request, 'read');
  if (who instanceof Response) return who;
  const { table } = await params;
  const name = SHEET_NAMES.find((n) => `${n}.csv` === table);
  if (!name) return Response.json({ error: `there is no such sheet: ${SHEET_NAMES.map((n) => `${n}.csv`).join(', ')}` }, { status: 404, headers: noStore });
  const pieces = sheetOf(who, name);
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async pull(out) {
      try {
        const { done, value } = await pieces.next();
        if (done) out.close();
        else out.enqueue(encoder.encode(value));
      } catch (error) {
        // A file that ends early must not look whole.
        console.error(`the sheet ${name} broke off`, error);
        out.error(error);
      }
    },
    async cancel() {
      await pieces.return(undefined);
    },
  });
  return new Response(body, {
    headers: { ...noStore, 'content-type': 'text/csv; charset=utf-8; header=present', 'content-disposition': `attachment; filename="mile-ledger-${name}.csv"` },
  });
});
