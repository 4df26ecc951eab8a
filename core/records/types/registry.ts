import type { RecordType } from '../record-types';
import { adapter } from './adapter';
import { car } from './car';
import { enrolment } from './enrolment';
import { means } from './means';
import { network } from './network';
import { plan } from './plan';
import { provider } from './provider';
import { site } from './site';
import { stall } from './stall';
import { tariff } from './tariff';

/** What each type of record is. */
export const TYPES = { network, provider, site, stall, car, adapter, means, plan, enrolment, tariff } as const satisfies Record<RecordType, unknown>;
