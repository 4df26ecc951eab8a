import { CLEARLY, PROBABLY } from '@/core/evidence/share-evidence';
import type { TrialPair } from '@/core/trials/trial-result';

const [WIDTH, HEIGHT] = [340, 150];
const PLOT = { left: 78, right: 12, top: 12, bottom: 26 };

/** How the evidence grew round by round, beside what is needed to say probably and clearly. @param pairs each of which was looked at */
export function HowSure({ pair, pairs }: { pair: TrialPair; pairs: number }) {
  const [probably, clearly] = [Math.log(PROBABLY * pairs), Math.log(CLEARLY * pairs)];
  const top = Math.max(clearly * 1.15, ...pair.course.map((c) => c.logEvidence));
  const low = Math.min(0, ...pair.course.map((c) => c.logEvidence));
  const n = pair.course.length;
  const x = (i: number) => PLOT.left + (n < 2 ? 0.5 : i / (n - 1)) * (WIDTH - PLOT.left - PLOT.right - 16) + 8;
  const y = (log: number) => PLOT.top + ((top - log) / (top - low)) * (HEIGHT - PLOT.top - PLOT.bottom);
  const said = pair.course.map((c) => `after round ${c.round}: ${c.logEvidence >= clearly ? 'clearly' : c.logEvidence >= probably ? 'probably' : 'no sign'}`);
  return (
    <section aria-labelledby="sure-head" className="border-t-2 border-ink bg-card px-3.5 py-2.5">
      <h2 id="sure-head" className="text-[15px]">
        How sure, round by round
      </h2>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="mt-1 w-full max-w-[420px]" role="img" aria-label={said.join('; ')}>
        {(
          [
            [clearly, 'clearly'],
            [probably, 'probably'],
            [0, 'no sign'],
          ] as const
        ).map(([log, word]) => (
          <g key={word}>
            <line x1={PLOT.left} x2={WIDTH - PLOT.right} y1={y(log)} y2={y(log)} stroke={log === 0 ? 'var(--ink)' : 'var(--rule)'} />
            <text x={PLOT.left - 8} y={y(log) + 4} textAnchor="end" fontSize="12" fontWeight="600" fill="var(--ink)">
              {word}
            </text>
          </g>
        ))}
        <polyline points={pair.course.map((c, i) => `${x(i)},${y(c.logEvidence)}`).join(' ')} fill="none" stroke="var(--ink)" strokeWidth="2" />
        {pair.course.map((c, i) => (
          <g key={c.round}>
            <rect
              x={x(i) - 6}
              y={y(c.logEvidence) - 7}
              width="12"
              height="14"
              rx="5"
              fill={c.logEvidence >= clearly ? 'var(--paint)' : 'var(--card)'}
              stroke="var(--ink)"
              strokeWidth="1.5"
            />
            <text x={x(i)} y={HEIGHT - 8} textAnchor="middle" className="num" fontSize="11" fill="var(--ink-2)">
              {c.round}
            </text>
          </g>
        ))}
      </svg>
    </section>
  );
}
