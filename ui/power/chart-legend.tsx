import type { PowerChartData } from '@/core/power/power-chart';

/** Narrower, a name would lie over its neighbour's. */
export const LETTER = 6.3;
export const cutTo = (text: string, most: number): string => ([...text].length > most ? `${[...text].slice(0, most - 1).join('')}…` : text);
/** As wide as a phone. */
export const NARROW = 480;
/** A row of what the lines are, and the piece of line in it. */
export const LEGEND_ROW = 19;
const SAMPLE = 44;
export const legendColumns = (width: number): number => (width >= 640 ? 2 : 1);
/** Told apart without colour: by dashes. */
export const DASH = [undefined, '9 6', '12 3 3 3 3 3', '12 4 3 4', '22 5'] as const;
export const LAID = { stroke: 'var(--line)', strokeWidth: 2 } as const;
export const DOTTED = { stroke: 'var(--line)', strokeWidth: 2.5, strokeDasharray: '2 5', strokeLinecap: 'round' } as const;

export type ChartRow = { name: string; painted: boolean; dash?: string | undefined; dotted?: boolean };
/** What has no room in the picture: its lines, but for a single one laid over a wide picture, and what the dotted one is where they leave it none. */
export function legendOf(data: PowerChartData, along: 'battery' | 'clock', width: number): ChartRow[] {
  const many = data.lines.length > (width < NARROW ? 1 : 2);
  const lines = many ? data.lines.map((l, i): ChartRow => ({ name: l.label, painted: i === 0, dash: i === 0 ? undefined : DASH[(i - 1) % DASH.length] })) : [];
  const expected = along === 'battery' && data.expected.length > 1 && (many || width < NARROW);
  return expected ? [...lines, { name: data.expectedText, painted: false, dotted: true }] : lines;
}

type InPlace = {
  name: string;
  /** The last unbroken run of its line. */
  at: readonly { x: number; kW: number }[] | undefined;
  s: { x: (v: number) => number; y: (kW: number) => number };
  /** Ends of the picture. */
  left: number;
  right: number;
};
/** What a single line laid over is, below its first part. */
export function NameInPlace({ name, at, s, left, right }: InPlace) {
  const p = at?.[Math.floor(at.length / 3)];
  const half = (name.length * LETTER) / 2;
  return p ? (
    <text
      x={Math.min(right - half, Math.max(left + half, s.x(p.x)))}
      y={Math.min(s.y(0) - 6, s.y(p.kW) + 30)}
      textAnchor="middle"
      fontSize="12"
      fontWeight="600"
      fill="var(--line)"
      stroke="var(--asphalt)"
      strokeWidth="3.5"
      paintOrder="stroke"
    >
      {name}
    </text>
  ) : null;
}

/** @param width of the drawing @param top where its picture ends */
export function Legend({ rows, width, top }: { rows: readonly ChartRow[]; width: number; top: number }) {
  const columns = legendColumns(width);
  const wide = (width - 8) / columns;
  const most = Math.floor((wide - SAMPLE - 12) / LETTER);
  return rows.map(({ name, painted, dash, dotted }, i) => {
    const shown = cutTo(name, most);
    const [x, y] = [4 + (i % columns) * wide, top + Math.floor(i / columns) * LEGEND_ROW];
    return (
      <g key={name}>
        {shown === name ? null : <title>{name}</title>}
        <rect x={x} y={y} width={SAMPLE} height={12} fill={painted ? 'var(--paint)' : 'var(--asphalt)'} />
        {painted ? null : <line x1={x + 2} x2={x + SAMPLE - 2} y1={y + 6} y2={y + 6} {...(dotted ? DOTTED : { ...LAID, strokeDasharray: dash })} />}
        <text x={x + SAMPLE + 6} y={y + 10.5} fontSize="12" fontWeight="600" fill="var(--ink)">
          {shown}
        </text>
      </g>
    );
  });
}
