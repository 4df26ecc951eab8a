/** Every kind of event this version knows, in the order of a visit. */
export const KINDS = [
  'pulled_in',
  'survey',
  'queue_joined',
  'stall_free',
  'stall_chosen',
  'stall_named',
  'first_act',
  'adapter_fitted',
  'plugged',
  'means_shown',
  'means_accepted',
  'means_refused',
  'price_shown',
  'claimed',
  'power_seen',
  'reading',
  'change',
  'fault',
  'stop_asked',
  'power_gone',
  'unlocked',
  'stuck',
  'unplugged',
  'help_called',
  'help_answered',
  'help_ended',
  'reserved',
  'released',
  'pulled_out',
  'bill',
  'receipt',
  'rating',
  'note',
  'figure_given',
  'correction',
  'withdrawal',
] as const;
export type Kind = (typeof KINDS)[number];

const known = new Set<string>(KINDS);
export const isKind = (kind: string): kind is Kind => known.has(kind);

/** Says what is wrong with a payload; `null` when nothing is. Given to the derivation, so that a phone need not carry the schemas. */
export type PayloadCheck = (kind: Kind, payload: unknown) => { path: string; reason: string } | null;
