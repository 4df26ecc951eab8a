import { calling } from '@/server/api/caller';
import { problem } from '@/server/api/problem';
import { now } from '@/server/clock';
import { DOCUMENT_NAMES, DOCUMENTS, documentOf } from '@/server/formats/export-documents';
import { EXPORTS, PLACES_ZIP } from '@/server/formats/export-names';
import { SHEET_NAMES, sheetOf } from '@/server/formats/export-sheets';
import { ledgerZip } from '@/server/formats/ledger-out';
import { noStore } from '@/server/http/answer';

export const dynamic = 'force-dynamic';

/** A sheet of the household as CSV, written as it is read: `visits.csv`, `attempts.csv`, `events.csv`, `readings.csv`, `bills.csv`, `sites.csv`, `tariffs.csv`; or a document of a standard: `ocpi-cdrs.json`, `ocpi-sessions.json`, `ocpi-locations.json`, `sites.geojson`; or `places.zip`, places and prices without visits. */
export const GET = calling<{ table: string }>('read', [], async (who, _request, { table }) => {
  const document = DOCUMENT_NAMES.find((n) => n === table);
  if (document)
    return new Response(JSON.stringify(await documentOf(who, document)), {
      headers: { ...noStore, 'content-type': DOCUMENTS[document], 'content-disposition': `attachment; filename="mile-ledger-${document}"` },
    });
  if (table === PLACES_ZIP)
    return new Response(ledgerZip(who, new Date(now()), 'places'), {
      headers: { ...noStore, 'content-type': 'application/zip', 'content-disposition': 'attachment; filename="mile-ledger-places.zip"' },
    });
  const name = SHEET_NAMES.find((n) => `${n}.csv` === table);
  if (!name) return problem(404, `There is no such file. There are: ${Object.keys(EXPORTS).join(', ')}.`);
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
