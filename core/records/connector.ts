/** Plugs found on public stalls. DC ones carry the battery's own current. */
export const CONNECTORS = ['CCS1', 'CCS2', 'CHAdeMO', 'NACS', 'GB/T', 'MCS', 'Type 1', 'Type 2'] as const;
export type Connector = (typeof CONNECTORS)[number];
