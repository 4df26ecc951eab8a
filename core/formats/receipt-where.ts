import { type ReceiptField, type ReceiptRead, readReceipt } from './receipt-text';

/**
 * On which line each figure of a receipt was read: the first that by itself says the same. A figure that no line says alone has none.
 * @returns by field the index of the line
 */
export function whereRead(
  read: ReceiptRead,
  lines: readonly { text: string }[],
  sites: readonly string[],
  nowMs: number,
): Partial<Record<ReceiptField, number>> {
  const alone = lines.map((l) => readReceipt(l.text, sites, nowMs).proposal);
  const out: Partial<Record<ReceiptField, number>> = {};
  for (const [field, value] of Object.entries(read.proposal) as [ReceiptField, unknown][]) {
    const line = value === null ? -1 : alone.findIndex((p) => p[field] === value);
    if (line >= 0) out[field] = line;
  }
  // The currency is looked for beside the amount it is of.
  const beside = out.amount === undefined ? undefined : alone[out.amount];
  if (beside && read.proposal.currency !== null && beside.currency === read.proposal.currency) out.currency = out.amount as number;
  return out;
}
