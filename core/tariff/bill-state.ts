const STATES: Readonly<Record<string, string>> = {
  charged: 'Was charged',
  pending: 'Is pending',
  checked: 'Was charged, checked',
  queried: 'Was charged, queried',
  settled: 'Was charged, settled',
  refunded: 'Refunded',
};
/** What a bill's state is called before what was charged. */
export const billState = (state: string): string => STATES[state] ?? 'Was charged';
