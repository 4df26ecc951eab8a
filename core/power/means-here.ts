import { hasExpired } from '../records/expiry';
import { type MeansKind, meansLabel } from '../records/means-kind';
import type { MileRecord, RecordFields } from '../records/record-schema';

type Means = Pick<MileRecord<'means'>, 'id' | 'fields' | 'archived'>;
type Enrolment = Pick<MileRecord<'enrolment'>, 'fields' | 'archived'>;

/** Whether one means can be used at a network for a car, and if not, why. */
export function meansProblem(
  m: RecordFields<'means'>,
  at: { networkId: string; carId: string | null; today: string },
  enrolments: readonly Enrolment[],
): string | null {
  if (hasExpired(m.expires, at.today)) return `expired ${m.expires}`;
  if (m.networkId !== null && m.networkId !== at.networkId) return 'belongs to another network';
  if (m.kind === 'autocharge' || m.kind === 'plug_and_charge') {
    const mine = enrolments.filter((e) => !e.archived && e.fields.kind === m.kind && e.fields.networkId === at.networkId && e.fields.carId === at.carId);
    if (!mine.some((e) => e.fields.enrolledOn !== null || e.fields.chargedOn !== null)) {
      const left = mine[0]?.fields.steps.filter((s) => s.doneOn === null).length;
      return left ? `enrolment unfinished, ${left} ${left === 1 ? 'step' : 'steps'} left` : 'car not enrolled here';
    }
  }
  return null;
}

export type MeansHere = { usable: string[]; problem: string | null; unknown: boolean };

/**
 * Which of the household's means work at a stall. What the stall takes may be unknown: then everything held that works
 * at the network counts, and it is said.
 * @param accepted kinds taken there, `null` when nobody has noted them
 */
export function meansHere(
  accepted: readonly MeansKind[] | null,
  held: readonly Means[],
  at: { networkId: string; carId: string | null; today: string },
  enrolments: readonly Enrolment[],
): MeansHere {
  const there = held.filter((m) => !m.archived && (accepted === null || accepted.includes(m.fields.kind)));
  const usable = there.filter((m) => meansProblem(m.fields, at, enrolments) === null).map((m) => m.id);
  if (usable.length > 0 || accepted === null || accepted.includes('free_vend')) return { usable, problem: null, unknown: accepted === null };
  const near = there[0];
  const why = near ? `${near.fields.label}: ${meansProblem(near.fields, at, enrolments)}` : 'none of these is held';
  return {
    usable,
    problem: accepted.length === 0 ? 'takes nothing that is known' : `takes ${accepted.map((k) => meansLabel(k).toLowerCase()).join(', ')}; ${why}`,
    unknown: false,
  };
}
