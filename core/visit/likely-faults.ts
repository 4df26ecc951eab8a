import { carIsMeans, type MeansKind } from '../records/means-kind';

const STARTING = [
  'start_error',
  'timed_out',
  'card_refused',
  'claims_no_power',
  'reader_dead',
  'stall_dark',
  'cable_check',
  'bay_blocked',
  'app_unreachable',
  'connector_damaged',
];
const CHARGING = ['stopped_by_itself', 'derated', 'hot_connector', 'shared_drop', 'slow_ramp', 'does_not_stop', 'site_limit', 'handle_stuck'];
const STOPPING = ['does_not_stop', 'handle_stuck', 'cable_locked', 'hot_connector', 'stopped_by_itself', 'wrong_price', 'idle_fee_disputed'];
const BY_PHASE = { starting: STARTING, charging: CHARGING, stopping: STOPPING };
export type FaultPhase = keyof typeof BY_PHASE;

/** What goes wrong with the way of paying that is tried, ahead of the rest. */
function ofMeans(kind: MeansKind): string[] {
  if (carIsMeans(kind)) return ['car_not_recognised'];
  if (kind === 'app' || kind === 'in_app_account') return ['wrong_stall_started', 'app_unreachable'];
  return kind === 'rfid' ? ['rfid_refused'] : [];
}

/**
 * The faults that are likely now, by their codes, the likeliest first and no more than before: those of the phase, and while
 * it starts those of the means and of an adapter that is on (common practice, no source).
 */
export function likelyFaults(phase: FaultPhase, now: { meansKind: MeansKind; adapterOn: boolean }): string[] {
  const list = BY_PHASE[phase];
  if (phase !== 'starting') return list;
  const [first = '', ...rest] = list;
  const own = [...(now.adapterOn ? ['adapter_not_recognised'] : []), ...ofMeans(now.meansKind)];
  return [...new Set([first, ...own, ...rest])].slice(0, list.length);
}
