import { readOcmf, signedEnergy } from './ocmf';

/**
 * A data set after the example in the text of OCMF 1.0 (S.A.F.E. e.V.), from memory: fields and forms are the standard's, the figures are ours.
 */
const PAYLOAD = JSON.stringify({
  FV: '1.0',
  GI: 'Gateway',
  GS: '123456789',
  PG: 'T12345',
  MV: 'Meter maker',
  MM: 'X1',
  MS: '987',
  RD: [
    { TM: '2018-07-24T13:22:04,000+0200 S', TX: 'B', RV: 2935.6, RI: '1-b:1.8.e', RU: 'kWh', EI: 567, ST: 'G' },
    { TM: '2018-07-24T14:02:04,500+0200 S', TX: 'E', RV: 2958.1 },
  ],
});
const SIGNED = JSON.stringify({ SA: 'ECDSA-secp192r1-SHA256', SD: '8077dc3f' });
const SET = `OCMF|${PAYLOAD}|${SIGNED}`;

describe('a signed data set', () => {
  it('is its payload as it stands, its signature, its meter and its readings, each with what it leaves out', () => {
    expect(readOcmf(SET)).toEqual({
      payload: PAYLOAD,
      signature: { algorithm: 'ECDSA-secp192r1-SHA256', encoding: 'hex', data: '8077dc3f' },
      meter: { vendor: 'Meter maker', model: 'X1', serial: '987' },
      readings: [
        { at: Date.parse('2018-07-24T11:22:04Z'), tx: 'B', kWh: '2935.6', of: '1-b:1.8.e', status: 'G' },
        { at: Date.parse('2018-07-24T12:02:04.500Z'), tx: 'E', kWh: '2958.1', of: '1-b:1.8.e', status: 'G' },
      ],
    });
  });
  it('comes in base64, too, as OCPI has it, and a bar within a text is none between parts', () => {
    expect(readOcmf(btoa(SET))).toEqual(readOcmf(SET));
    const barred = PAYLOAD.replace('Meter maker', 'A|B');
    expect(readOcmf(`OCMF|${barred}|${SIGNED}`)).toMatchObject({ payload: barred, meter: { vendor: 'A|B' } });
  });
  it('names its algorithm and its digits, else those of the standard', () => {
    expect(readOcmf(`OCMF|${PAYLOAD}|{"SD":"AA=="}`)?.signature).toEqual({ algorithm: 'ECDSA-secp256r1-SHA256', encoding: 'hex', data: 'AA==' });
    expect(readOcmf(`OCMF|${PAYLOAD}|{"SD":"AA==","SE":"base64"}`)?.signature.encoding).toBe('base64');
  });
  it.each([
    ['nothing', ''],
    ['one part', 'OCMF|{}'],
    ['no JSON', 'OCMF|{|{"SD":"00"}'],
    ['a list', 'OCMF|[]|{"SD":"00"}'],
    ['no signature', `OCMF|${PAYLOAD}|{}`],
    ['an empty one', `OCMF|${PAYLOAD}|{"SD":""}`],
    ['another format', btoa('EDL|x|y')],
    ['base64 of no text', btoa(String.fromCharCode(255, 254))],
    ['no base64', '====='],
  ])('is none: %s', (_what, given) => expect(readOcmf(given)).toBeNull());
  it('odd readings are read as far as they say something', () => {
    const of = (RD: unknown) => readOcmf(`OCMF|${JSON.stringify({ RD })}|{"SD":"00"}`)?.readings;
    expect(of('x')).toEqual([]);
    expect(of([null, 3, []])).toEqual([]);
    const none = { at: null, tx: '', kWh: null, of: '', status: '' };
    expect(of([{}])).toEqual([none]);
    expect(of([{ TM: '2018-13-99T00:00:00,000+0200 S', RV: '1e400', RU: 'kWh' }])).toEqual([none]);
    expect(of([{ TM: '2018-07-24T13:22:04+02:00', RV: '1500', RU: 'Wh' }])).toEqual([{ ...none, at: Date.parse('2018-07-24T11:22:04Z'), kWh: '1.5' }]);
    expect(of([{ RV: 5, RU: 'mOhm' }])).toEqual([none]);
  });
});

// OCMF 1.0, time of a reading, from memory: comma and milliseconds, offset without a colon, the clock's state behind.
it.each([
  ['2018-07-24T13:22:04,000+0200 S', '2018-07-24T11:22:04.000Z'],
  ['2018-07-24T13:22:04.5+0200 I', '2018-07-24T11:22:04.500Z'],
  ['2018-07-24T13:22:04,12+02:00 R', '2018-07-24T11:22:04.120Z'],
  ['2018-07-24T13:22:04,123456-0130', '2018-07-24T14:52:04.123Z'],
  ['2018-07-24T13:22:04+0000 U', '2018-07-24T13:22:04.000Z'],
  ['x2018-07-24T13:22:04,000+0200 S', null],
  ['2018-07-24T13:22:04,000+0200 SX', null],
  ['2018-07-24T13:22:04,000+0200S', null],
  ['2018-07-24T13:22:04,000+0200 X', null],
  ['2018-07-24T13:22:04,+0200 S', null],
  ['2018-07-24T13:22:04,000', null],
])('a reading of %s', (TM, want) => {
  const at = readOcmf(`OCMF|${JSON.stringify({ RD: [{ TM }] })}|{"SD":"00"}`)?.readings[0]?.at ?? null;
  expect(at === null ? null : new Date(at).toISOString()).toBe(want);
});
it.each([
  ['2935.6', 'kWh', '2935.6'],
  [-1, 'kWh', '-1'],
  ['1500', 'Wh', '1.5'],
  ['1500', 'wh', null],
  ['', 'kWh', null],
  ['1.', 'kWh', null],
  ['1234567890123456', 'kWh', null],
  ['1.1234567891', 'kWh', null],
  [true, 'kWh', null],
  ['12x', 'kWh', null],
])('a register of %j %s', (RV, RU, want) => expect(readOcmf(`OCMF|${JSON.stringify({ RD: [{ RV, RU }] })}|{"SD":"00"}`)?.readings[0]?.kWh).toBe(want));

describe('what the registers say', () => {
  const reading = (tx: string, kWh: string | null, of = 'r', at: number | null = 1) => ({ tx, kWh, of, at, status: 'G' });
  it('is the end less the beginning of one register, over as many data sets as there are', () => {
    expect(signedEnergy([{ readings: [reading('B', '10.1')] }, { readings: [reading('C', '12'), reading('E', '35.4', 'r', 2)] }])).toEqual({
      kWh: '25.3',
      from: 1,
      to: 2,
    });
    for (const end of ['L', 'R', 'A', 'P']) expect(signedEnergy([{ readings: [reading('B', '1'), reading(end, '3')] }])?.kWh).toBe('2');
  });
  it('is nothing without both, or of two registers', () => {
    expect(signedEnergy([])).toBeNull();
    expect(signedEnergy([{ readings: [reading('B', '1')] }])).toBeNull();
    expect(signedEnergy([{ readings: [reading('E', '1')] }])).toBeNull();
    expect(signedEnergy([{ readings: [reading('B', '1'), reading('E', '3', 'other')] }])).toBeNull();
    expect(signedEnergy([{ readings: [reading('B', null), reading('E', '3')] }])).toBeNull();
  });
});
