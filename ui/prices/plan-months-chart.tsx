import type { PlanMonth } from '@/core/tariff/plan-months';
import { printMoney } from '@/core/units/money';
import { printMonth } from '@/core/units/zoned';

const [STEP, HALF, LEFT] = [30, 58, 8] as const;

/** What a plan saved or cost more in each month: up where it paid, down where it did not; the months in which it was held are outlined. */
export function PlanMonthsChart({ months, currency, name }: { months: readonly PlanMonth[]; currency: string; name: string }) {
  const most = Math.max(0.01, ...months.map((m) => Math.abs(m.saved)));
  const said = months.map((m) => `${printMonth(m.month)} ${m.saved < 0 ? 'minus ' : ''}${printMoney(String(Math.abs(m.saved)), currency)}`).join(', ');
  return (
    <svg
      viewBox={`0 0 ${months.length * STEP + 2 * LEFT} ${HALF * 2 + 22}`}
      className="w-full max-w-[460px]"
      role="img"
      aria-label={`${name}, saved by month: ${said}`}
    >
      <line x1={0} x2={months.length * STEP + 2 * LEFT} y1={HALF} y2={HALF} className="stroke-ink" strokeWidth={1.5} />
      {months.map((m, i) => {
        const tall = (Math.abs(m.saved) / most) * (HALF - 4);
        const x = LEFT + i * STEP + 4;
        return (
          <g key={m.month}>
            <rect
              x={x}
              y={m.saved >= 0 ? HALF - tall : HALF}
              width={STEP - 8}
              height={Math.max(1, tall)}
              className={`${m.saved >= 0 ? 'fill-paint' : 'fill-lane'} ${m.held ? 'stroke-ink' : ''}`}
              strokeWidth={m.held ? 2 : 0}
            />
            <text x={x + (STEP - 8) / 2} y={HALF * 2 + 16} textAnchor="middle" className="fill-ink text-[10.5px] font-bold">
              {printMonth(m.month).slice(0, 1)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
