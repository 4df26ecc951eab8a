/** Types of records, in the order in which one may refer to another. What each is stands in types/. */
export const RECORD_TYPES = ['network', 'provider', 'site', 'stall', 'car', 'adapter', 'means', 'plan', 'enrolment', 'tariff'] as const;
export type RecordType = (typeof RECORD_TYPES)[number];
