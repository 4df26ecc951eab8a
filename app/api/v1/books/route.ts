import { closeForm } from '@/core/tariff/closed-month';
import { closeMonth } from '@/server/compare/closed-months';
import { takesForm } from '@/server/http/signed-in-write';

/** Closes the books of a month, `{month: "2025-09"}`. Repeating it changes nothing. */
export const POST = takesForm(closeForm, async (who, { month }) => closeMonth(who, month));
