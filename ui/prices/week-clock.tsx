import { type PriceDay, weekdayName } from '@/core/tariff/price-week';

const [LEFT, WIDTH, ROW, GAP, HIGH] = [44, 336, 22, 4, 18] as const;

/** A site's prices of a kWh through the week: paint as high as the price, a row a day. */
export function WeekClock({ week, currency }: { week: readonly PriceDay[]; currency: string }) {
  const prices = week.flatMap((d) => d.stretches.flatMap((s) => (s.perKWh === null ? [] : [Number(s.perKWh)])));
  const most = Math.max(0.01, ...prices);
  const x = (minute: number) => LEFT + (WIDTH * minute) / 1440;
  const height = week.length * (ROW + GAP) + 20;
  const said = week
    .map((d) => `${weekdayName(d.weekday)}: ${d.stretches.map((s) => `${clock(s.from)} to ${clock(s.to)} ${s.perKWh ?? 'nothing'}`).join(', ')}`)
    .join('. ');
  return (
    <svg
      viewBox={`0 0 ${LEFT + WIDTH + 6} ${height}`}
      className="w-full max-w-[440px]"
      role="img"
      aria-label={`Price per kWh in ${currency} through the week. ${said}`}
    >
      {week.map((d, row) => {
        const y = row * (ROW + GAP);
        return (
          <g key={d.weekday}>
            <text x={0} y={y + HIGH - 4} className="fill-ink text-[11px] font-bold">
              {weekdayName(d.weekday)}
            </text>
            <rect x={LEFT} y={y} width={WIDTH} height={HIGH} className="fill-asphalt" />
            {d.stretches.map((s) => {
              const tall = s.perKWh === null ? 0 : Math.max(2, (HIGH * Number(s.perKWh)) / most);
              const wide = (WIDTH * (s.to - s.from)) / 1440;
              return (
                <g key={s.from}>
                  <rect x={x(s.from)} y={y + HIGH - tall} width={wide} height={tall} className="fill-paint" />
                  {s.from > 0 ? <line x1={x(s.from)} x2={x(s.from)} y1={y} y2={y + HIGH} className="stroke-ink" strokeWidth={1} /> : null}
                  {wide > 38 && s.perKWh !== null && tall > 9 ? (
                    <text x={x(s.from) + 4} y={y + HIGH - 3} className="num fill-on-paint text-[10px]">
                      {s.perKWh}
                    </text>
                  ) : null}
                  {wide > 38 && (s.perKWh === null || tall <= 9) ? (
                    <text x={x(s.from) + 4} y={y + HIGH - Math.max(tall, 2) - 2} className="num fill-line text-[10px]">
                      {s.perKWh ?? 'no price'}
                    </text>
                  ) : null}
                </g>
              );
            })}
          </g>
        );
      })}
      {[0, 6, 12, 18, 24].map((h) => (
        <text key={h} x={x(h * 60)} y={height - 5} textAnchor={h === 0 ? 'start' : h === 24 ? 'end' : 'middle'} className="num fill-ink-2 text-[10px]">
          {h}:00
        </text>
      ))}
    </svg>
  );
}

const clock = (minute: number): string => `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')}`;
