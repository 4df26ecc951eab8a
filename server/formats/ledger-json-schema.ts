import { toJSONSchema } from 'zod';
import { ledgerSchema } from '@/core/formats/ledger-schema';

/** JSON Schema (2020-12) of `ledger.json`, made of the schemas by which everything is checked where it comes in. What only a program can check is left out of it. */
export const ledgerJsonSchema = (): object => ({
  ...(toJSONSchema(ledgerSchema, { unrepresentable: 'any', io: 'input', reused: 'ref' }) as object),
  title: 'Mile Ledger: a whole ledger, version 1',
});
