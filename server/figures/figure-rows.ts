import { ATTEMPT_FIGURES, type OfAttempt } from '@/core/figures/attempt-figures';
import type { Figure, Value, Where } from '@/core/figures/figure';
import { VISIT_FIGURES } from '@/core/figures/visit-figures';
import type { Visit } from '@/core/visit/derive';
import { toBin } from '../db/binary-id';

type Cell = Buffer | string | number | boolean | null;

const VISIT = Object.values(VISIT_FIGURES) as readonly Figure<Visit>[];
const ATTEMPT = Object.values(ATTEMPT_FIGURES) as readonly Figure<OfAttempt>[];

/** Columns of a row of each table of figures, those of the registry after the keys. */
export const VISIT_COLUMNS = ['household_id', 'visit_id', ...VISIT.map((f) => f.column)].join(', ');
export const ATTEMPT_COLUMNS = ['household_id', 'visit_id', ...ATTEMPT.map((f) => f.column)].join(', ');

const cell = <Of>(f: Figure<Of>, value: Value): Cell => (f.is === 'id' && typeof value === 'string' ? toBin(value) : value);

/** A visit's figures in the order of [VISIT_COLUMNS]. */
export const visitRow = (household: Buffer, v: Visit, where: Where): Cell[] => [household, toBin(v.id), ...VISIT.map((f) => cell(f, f.value(v, where)))];

/** The figures of its attempts, each in the order of [ATTEMPT_COLUMNS]. */
export const attemptRows = (household: Buffer, visit: Visit, where: Where): Cell[][] =>
  visit.attempts.map((attempt) => [household, toBin(visit.id), ...ATTEMPT.map((f) => cell(f, f.value({ attempt, visit }, where)))]);
