import { ID_PATTERN, NOT_AN_ID } from '@/core/units/id';
import * as z from '@/core/units/schema';
import { checkedRecords, checkSigned } from '@/server/formats/signed-check';
import { noStore } from '@/server/http/answer';
import { takesForm } from '@/server/http/signed-in-write';
import { visitPage } from '@/server/visits/visit-page';

const id = () => z.string().check(z.regex(ID_PATTERN, NOT_AN_ID));
const form = z.object({
  visitId: id(),
  billId: id(),
  key: z.string().check(z.trim(), z.minLength(1, 'The key, as it stands on the meter'), z.maxLength(2000, 'Too long for a key')),
});

/** Holds the signed values of a network's record against a key, `{visitId, billId, key}`: here alone, and nothing is kept. */
export const POST = takesForm(form, async (who, { visitId, billId, key }) => {
  const page = await visitPage(who, visitId);
  const record = page && 'visit' in page ? checkedRecords(page.visit).find((r) => r.billId === billId) : undefined;
  if (!record?.signed) return 'There is no signed value to check.';
  return Response.json(checkSigned(record.signed, key), { headers: noStore });
});
