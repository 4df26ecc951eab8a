import { ledgerJsonSchema } from '@/server/formats/ledger-json-schema';

export const dynamic = 'force-static';

/** The JSON Schema of the file in which a whole ledger goes out and comes in. It says nothing about anybody. */
export const GET = (): Response =>
  Response.json(ledgerJsonSchema(), {
    headers: { 'content-type': 'application/schema+json', 'content-disposition': 'attachment; filename="mile-ledger.schema.json"' },
  });
