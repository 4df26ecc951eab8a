import { createContext } from 'react';
import { NO_WISHES } from '@/core/records/wishes';
import type { ConsumptionUnit } from '@/core/units/consumption';
import type { Names } from './form-fields';

/** What every field of a record's form needs to know. */
export type FormFacts = {
  /** Messages by path. */
  messages: Record<string, string>;
  names: Names;
  /** In which consumption is typed. */
  unit: ConsumptionUnit;
  idBase: string;
  onLeave?: ((path: string, value: (path: string) => string, set: (path: string, value: string) => void) => void) | undefined;
  onPhoto?: ((file: Blob) => Promise<string>) | undefined;
  photoSource?: ((sha256: string) => string) | undefined;
};
export const FormContext = createContext<FormFacts>({ messages: {}, names: {}, unit: NO_WISHES.consumption, idBase: '' });
