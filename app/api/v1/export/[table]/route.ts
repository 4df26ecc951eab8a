import { callerOf } from '@/server/api/caller';
import { now } from '@/server/clock';
import { DOCUMENT_NAMES, DOCUMENTS, documentOf } from '@/server/formats/export-documents';
import { SHEET_NAMES, sheetOf } from '@/server/formats/export-sheets';
import { ledgerZip } from '@/server/formats/ledger-out';
import { answering, noStore } from '@/server/http/answer';

export const dynamic = 'force-dynamic';

/** A sheet of the household as CSV, written as it is read: `visits.csv`, `attempts.csv`, `events.csv`, `readings.csv`, `bills.csv`, `sites.csv`, `tariffs.csv`; or a document of a standard: `ocpi-cdrs.json`, `ocpi-sessions.json`, `ocpi-locations.json`, `sites.geojson`; or `places.zip`, places and prices without visits. */
export const GET = answering(async (request: Request, { params }: { params: Promise<{ table: string }> }): Promise<Response> => {
  const who = await callerOf(request, 'read');
  if (who instanceof Response) return who;
  const { table } = await params;
  const document = DOCUMENT_NAMES.find((n) => n === table);
  if (document)
    return new Response(JSON.stringify(await documentOf(who, document)), {
      headers: { ...noStore, 'content-type': DOCUMENTS[document], 'content-disposition': `attachment; filename="mile-ledger-${document}"` },
    });
  if (table === 'places.zip')
    return new Response(ledgerZip(who, new Date(now()), 'places'), {
      headers: { ...noStore, 'content-type': 'application/zip', 'content-disposition': 'attachment; filename="mile-ledger-places.zip"' },
    });
  const name = SHEET_NAMES.find((n) => `${n}.csv` === table);
  if (!name)
    return Response.json(
      { error: `there is no such file: ${[...SHEET_NAMES.map((n) => `${n}.csv`), ...DOCUMENT_NAMES, 'places.zip'].join(', ')}` },
      { status: 404, headers: noStore },
    );
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
