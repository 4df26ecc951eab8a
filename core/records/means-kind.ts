/** Ways to prove who pays. `car`: the car itself is the means, so plugging in is the driver's last act. */
export const MEANS_KINDS = [
  { kind: 'contactless', label: 'Contactless card', pad: 'Card shown', again: 'Card again' },
  { kind: 'card_insert', label: 'Card inserted', pad: 'Card inserted', again: 'Card again' },
  { kind: 'phone_wallet', label: 'Phone wallet', pad: 'Phone shown', again: 'Phone again' },
  { kind: 'app', label: 'Network app', pad: 'Started in app', again: 'App again' },
  { kind: 'web', label: 'Web page or QR', pad: 'Started on web page', again: 'Web page again' },
  { kind: 'rfid', label: 'RFID card', pad: 'RFID card shown', again: 'RFID card again' },
  { kind: 'autocharge', label: 'Autocharge', pad: 'Left to Autocharge', car: true },
  { kind: 'plug_and_charge', label: 'Plug & Charge', pad: 'Left to Plug & Charge', car: true },
  { kind: 'remote', label: 'Phone call, remote start', pad: 'Asked for remote start', again: 'Asked again' },
  { kind: 'free_vend', label: 'Free, no proof asked', pad: 'Free start', car: true },
  { kind: 'in_app_account', label: 'In-app account', pad: 'Started in account', again: 'Account again' },
] as const satisfies readonly { kind: string; label: string; pad: string; again?: string; car?: true }[];

export type MeansKind = (typeof MEANS_KINDS)[number]['kind'];
export const MEANS_KIND_NAMES = MEANS_KINDS.map((m) => m.kind) as [MeansKind, ...MeansKind[]];

const byKind = new Map<string, (typeof MEANS_KINDS)[number]>(MEANS_KINDS.map((m) => [m.kind, m]));
export const meansLabel = (kind: string): string => byKind.get(kind)?.label ?? kind;
/** What the pad says the driver did. */
export const meansPad = (kind: string): string => byKind.get(kind)?.pad ?? 'Card shown';
/** The same for showing it once more. */
export const meansAgain = (kind: string): string => {
  const m = byKind.get(kind);
  return m !== undefined && 'again' in m ? m.again : 'Start again';
};
/** True when no act of the driver besides the plug is asked for. */
export const carIsMeans = (kind: string): boolean => {
  const m = byKind.get(kind);
  return m !== undefined && 'car' in m;
};
