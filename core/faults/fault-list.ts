/** Whose side a fault seems to be on. A guess that the driver can change. */
export const SIDES = ['site', 'network', 'payment', 'car', 'adapter', 'driver'] as const;
export type Side = (typeof SIDES)[number];

/**
 * One fault as the driver sees it.
 * - `ends`: an ending fault closes the attempt; the others are noted and cost nothing by themselves.
 * - `refusal`: the means was turned down; recorded as `means_refused`, which does not end the attempt.
 * - `ocpp16`: nearest ChargePointErrorCode of OCPP 1.6 (StatusNotification), `stopReason`: nearest Reason
 *   (StopTransaction), `authStatus`: nearest AuthorizationStatus (IdTagInfo). Absent where none is near.
 * - `danger`: shown with the caution not to unplug.
 */
export type Fault = {
  code: string;
  label: string;
  side: Side;
  ends: boolean;
  refusal?: true;
  danger?: true;
  ocpp16?: string;
  stopReason?: string;
  authStatus?: string;
};

/** The one list of faults, in the order of a visit: before the start, while starting, in the charge, after it. */
export const FAULTS: readonly Fault[] = [
  { code: 'stall_dark', label: 'Stall dark or out of order', side: 'network', ends: true, ocpp16: 'OtherError' },
  { code: 'reader_dead', label: 'Screen or reader dead', side: 'network', ends: true, ocpp16: 'ReaderFailure' },
  { code: 'card_refused', label: 'Card refused', side: 'payment', ends: false, refusal: true, authStatus: 'Invalid' },
  { code: 'app_unreachable', label: 'App cannot reach the stall', side: 'network', ends: false, refusal: true, ocpp16: 'WeakSignal' },
  { code: 'rfid_refused', label: 'RFID card refused', side: 'payment', ends: false, refusal: true, authStatus: 'Invalid' },
  { code: 'car_not_recognised', label: 'Autocharge or Plug & Charge not recognised', side: 'network', ends: false, refusal: true, authStatus: 'Invalid' },
  { code: 'stored_card_expired', label: 'Stored card expired', side: 'driver', ends: false, refusal: true, authStatus: 'Expired' },
  { code: 'connector_damaged', label: 'Connector or cable damaged', side: 'network', ends: true, ocpp16: 'OtherError' },
  { code: 'bay_blocked', label: 'Cable does not reach or bay blocked', side: 'site', ends: true },
  { code: 'adapter_not_recognised', label: 'Adapter not recognised', side: 'adapter', ends: true, ocpp16: 'EVCommunicationError' },
  { code: 'timed_out', label: 'Waits for the car, times out', side: 'network', ends: true, ocpp16: 'EVCommunicationError' },
  { code: 'cable_check', label: 'Cable check or isolation fault', side: 'network', ends: true, ocpp16: 'GroundFailure' },
  { code: 'start_error', label: 'Start error', side: 'network', ends: true, ocpp16: 'InternalError' },
  { code: 'claims_no_power', label: 'Says charging, no power', side: 'network', ends: true, ocpp16: 'PowerSwitchFailure' },
  { code: 'wrong_stall_started', label: 'Wrong stall started', side: 'driver', ends: true, stopReason: 'Other' },
  { code: 'stopped_by_itself', label: 'Stopped by itself', side: 'network', ends: true, ocpp16: 'OtherError', stopReason: 'Other' },
  { code: 'hot_connector', label: 'Hot cable or connector', side: 'network', ends: false, ocpp16: 'HighTemperature' },
  { code: 'derated', label: 'Steady below the plate', side: 'network', ends: false },
  { code: 'slow_ramp', label: 'Slow to ramp up', side: 'network', ends: false },
  { code: 'shared_drop', label: 'Dropped when shared', side: 'site', ends: false },
  { code: 'fewer_phases', label: 'Fewer AC phases than the plate', side: 'site', ends: false, ocpp16: 'UnderVoltage' },
  { code: 'site_limit', label: 'Stopped by a site limit', side: 'site', ends: true, stopReason: 'Other' },
  { code: 'emergency_stop', label: 'Emergency stop', side: 'site', ends: true, ocpp16: 'OtherError', stopReason: 'EmergencyStop' },
  { code: 'does_not_stop', label: 'Does not stop', side: 'network', ends: false, ocpp16: 'PowerSwitchFailure' },
  { code: 'handle_stuck', label: 'Handle stuck', side: 'network', ends: false, ocpp16: 'ConnectorLockFailure' },
  { code: 'cable_locked', label: 'Cable locked in the post', side: 'network', ends: false, ocpp16: 'ConnectorLockFailure' },
  { code: 'price_not_shown', label: 'Price not shown', side: 'network', ends: false },
  { code: 'wrong_price', label: 'Wrong price shown', side: 'network', ends: false },
  { code: 'sticker_over_code', label: 'Sticker over a payment code', side: 'site', ends: false },
  { code: 'billed_wrong', label: 'Billed wrong', side: 'payment', ends: false },
  { code: 'billed_twice', label: 'Billed twice', side: 'payment', ends: false },
  { code: 'hold_wrong', label: 'Hold not released or too large', side: 'payment', ends: false },
  { code: 'receipt_refused', label: 'Receipt refused', side: 'payment', ends: false },
  { code: 'idle_fee_disputed', label: 'Idle or overstay fee disputed', side: 'payment', ends: false },
  { code: 'danger', label: 'Shock, smell, arcing, tripped breaker, bare or wet inside', side: 'site', ends: true, danger: true, ocpp16: 'GroundFailure' },
];

const byCode = new Map(FAULTS.map((f) => [f.code, f]));

/** The fault of a code, or undefined for a code from a newer list (kept, and treated as ending nothing). */
export const faultOf = (code: string): Fault | undefined => byCode.get(code);

/** The label of a code; an unlisted code is shown as it came. */
export const faultLabel = (code: string): string => byCode.get(code)?.label ?? code;
