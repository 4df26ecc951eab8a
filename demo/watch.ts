import { randomLcg } from 'd3-random';
import type { Watch } from '@/core/compare/watch';
import { idFrom } from './ids';
import { networks } from './scenario';

const SINCE = Date.parse('2024-12-01T07:00:00Z');
const [a, b] = [networks.copperbeech.id, networks.ferrywell.id].sort() as [string, string];
/** A pair that was put on watch before most of its visits. */
export const demoWatch: Watch = { id: idFrom(randomLcg(0.1201), SINCE), by: 'network', a, b, figure: 'first_try', since: SINCE };
