import * as z from '@/core/units/schema';
import { momentOf } from '../records/moment';
import { moment, quantity } from '../records/ocpi-tariff';
import { isZone } from '../units/zoned';
import { type ChargedSession, MOST_DAYS } from './session-period';

/** Periods that one session may have. */
const MOST_PERIODS = 5_000;

const period = z.object({
  start: moment,
  end: moment,
  kwh: quantity,
  state: z.enum(['CHARGING', 'PARKED']),
  avg_power_kw: z.optional(quantity),
  avg_current_a: z.optional(quantity),
  occupancy: z.optional(z.number().check(z.minimum(0, 'must be from 0 to 1'), z.maximum(1, 'must be from 0 to 1'))),
});

/** A session as it is written: periods in order without gaps; what is parked delivers nothing. */
export const chargedSession = z.pipe(
  z
    .object({
      time_zone: z.string().check(z.maxLength(64), z.refine(isZone, 'must be the name of a time zone, such as Europe/Ljubljana')),
      periods: z.array(period).check(z.minLength(1, 'must hold at least one period'), z.maxLength(MOST_PERIODS)),
    })
    .check(
      z.superRefine(({ periods }, ctx) => {
        const wrong = (i: number, field: string | null, message: string) =>
          ctx.addIssue({ code: 'custom', path: field === null ? ['periods', i] : ['periods', i, field], message });
        let before: number | null = null;
        for (const [i, p] of periods.entries()) {
          const [start, end] = [momentOf(p.start) ?? 0, momentOf(p.end) ?? 0];
          if (end < start) wrong(i, 'end', 'must not be before its start');
          if (before !== null && start !== before) wrong(i, null, start > before ? 'begins after a gap' : 'begins before the one before it ends');
          if (p.kwh > 0 && p.state === 'PARKED') wrong(i, 'kwh', 'must be 0 while parked');
          else if (p.kwh > 0 && end === start) wrong(i, 'kwh', 'must be 0 in no time');
          before = end;
        }
        const first = momentOf(periods[0]?.start ?? '') ?? 0;
        if (before !== null && before - first > MOST_DAYS * 86_400_000) wrong(periods.length - 1, 'end', `must be within ${MOST_DAYS} days of the start`);
      }),
    ),
  z.transform(
    (s): ChargedSession => ({
      zone: s.time_zone,
      periods: s.periods.map((p) => ({
        start: momentOf(p.start) ?? 0,
        end: momentOf(p.end) ?? 0,
        kwh: p.kwh,
        charging: p.state === 'CHARGING',
        power: p.avg_power_kw ?? null,
        current: p.avg_current_a ?? null,
        occupancy: p.occupancy ?? 0,
      })),
    }),
  ),
);
