/** How many phases an AC outlet has, and their volts between phase and neutral. */
type Ac = { phases: 1 | 3; phaseV: number };
type Plug = {
  name: string;
  /** True when a car can have the inlet that takes it; sockets of the house and of the camp site are never on a car. */
  inlet: boolean;
  /** What an AC outlet of this kind can give at most; `null` for DC. */
  ac: Ac | null;
};

/**
 * Plugs and sockets found on public stalls: IEC 62196-2/-3, SAE J1772 and J3400, GB/T 20234, CHAdeMO, and the
 * sockets of IEC 60309 (CEE) and NEMA WD 6. Phases and volts as usual in the countries that have them
 * (common practice, no source).
 */
const PLUGS = [
  { name: 'CCS1', inlet: true, ac: null },
  { name: 'CCS2', inlet: true, ac: null },
  { name: 'CHAdeMO', inlet: true, ac: null },
  { name: 'NACS', inlet: true, ac: null },
  { name: 'GB/T', inlet: true, ac: null },
  { name: 'MCS', inlet: true, ac: null },
  { name: 'Type 1', inlet: true, ac: { phases: 1, phaseV: 240 } },
  { name: 'Type 2', inlet: true, ac: { phases: 3, phaseV: 230 } },
  { name: 'NACS AC', inlet: true, ac: { phases: 1, phaseV: 240 } },
  { name: 'GB/T AC', inlet: true, ac: { phases: 3, phaseV: 220 } },
  { name: 'Household socket', inlet: false, ac: { phases: 1, phaseV: 230 } },
  { name: 'CEE blue 16 A', inlet: false, ac: { phases: 1, phaseV: 230 } },
  { name: 'CEE red 16 A', inlet: false, ac: { phases: 3, phaseV: 230 } },
  { name: 'CEE red 32 A', inlet: false, ac: { phases: 3, phaseV: 230 } },
  { name: 'CEE red 63 A', inlet: false, ac: { phases: 3, phaseV: 230 } },
  { name: 'NEMA 5-15', inlet: false, ac: { phases: 1, phaseV: 120 } },
  { name: 'NEMA 5-20', inlet: false, ac: { phases: 1, phaseV: 120 } },
  { name: 'NEMA 6-50', inlet: false, ac: { phases: 1, phaseV: 240 } },
  { name: 'NEMA 14-30', inlet: false, ac: { phases: 1, phaseV: 240 } },
  { name: 'NEMA 14-50', inlet: false, ac: { phases: 1, phaseV: 240 } },
] as const satisfies readonly Plug[];

export type Connector = (typeof PLUGS)[number]['name'];
export const CONNECTORS = PLUGS.map((p) => p.name) as [Connector, ...Connector[]];
/** Those a car can have. */
export const INLETS = PLUGS.filter((p) => p.inlet).map((p) => p.name) as [Connector, ...Connector[]];

const byName = new Map<string, Plug>(PLUGS.map((p) => [p.name, p]));
/** What an AC outlet gives; `null` when the connector carries direct current. */
export const acOf = (connector: Connector): Ac | null => byName.get(connector)?.ac ?? null;
export const isInlet = (connector: Connector): boolean => byName.get(connector)?.inlet ?? false;

/** Inlets that also take what the first key names: a combined inlet has the AC plug in its upper half (IEC 62196-3; NACS: SAE J3400). */
const ALSO_TAKES: Partial<Record<Connector, Connector>> = { CCS1: 'Type 1', CCS2: 'Type 2', NACS: 'NACS AC' };
/** Every connector that fits into one of a car's inlets without an adapter. */
export function fitsInto(inlets: readonly Connector[]): Set<Connector> {
  return new Set(inlets.flatMap((i) => (ALSO_TAKES[i] ? [i, ALSO_TAKES[i]] : [i])));
}

/** Pairs of inlets that no car has, since they are one country's or another's form of the same thing (common practice, no source). */
const NEVER_TOGETHER: [Connector, Connector][] = [
  ['CCS1', 'CCS2'],
  ['CCS1', 'NACS'],
  ['CCS2', 'NACS'],
  ['CCS1', 'Type 2'],
  ['CCS2', 'Type 1'],
  ['Type 1', 'Type 2'],
  ['Type 1', 'NACS AC'],
];
/** Why a car cannot have these inlets, or `null`. */
export function inletProblem(inlets: readonly Connector[]): string | null {
  const socket = inlets.find((i) => !isInlet(i));
  if (socket) return `A car has no ${socket}: that belongs to a stall`;
  const pair = NEVER_TOGETHER.find(([a, b]) => inlets.includes(a) && inlets.includes(b));
  return pair ? `No car has both ${pair[0]} and ${pair[1]}` : null;
}
