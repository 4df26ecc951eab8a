import { trialSchema } from '../trial-schema';
import { recordType } from './record-type';

export const trial = recordType({
  one: 'Trial',
  many: 'Trials',
  schema: trialSchema,
  name: (f) => f.name,
  columns: { name: 'text' },
  form: [],
});
