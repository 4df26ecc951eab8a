import { generateKeyPairSync, type KeyObject, sign } from 'node:crypto';
import { checkSigned } from './signed-check';

/** No published pair of key and signature was at hand: keys are made here, and the signatures with them, by OpenSSL through Node. */
const payload = (tx: string, kWh: number) =>
  JSON.stringify({ MV: 'Maker', MS: '7', RD: [{ TM: '2025-10-14T13:52:00,000+0200 S', TX: tx, RV: kWh, RI: '1-b:1.8.0', RU: 'kWh', ST: 'G' }] });
const curves = [
  ['secp192r1', 'prime192v1'],
  ['secp256r1', 'prime256v1'],
  ['secp256k1', 'secp256k1'],
  ['secp384r1', 'secp384r1'],
  ['brainpoolP256r1', 'brainpoolP256r1'],
] as const;
const pair = (namedCurve: string) => generateKeyPairSync('ec', { namedCurve });
const set = (key: KeyObject, curve: string, text: string, encoding: 'hex' | 'base64' = 'hex') =>
  `OCMF|${text}|${JSON.stringify({ SA: `ECDSA-${curve}-SHA256`, ...(encoding === 'base64' ? { SE: 'base64' } : {}), SD: sign('sha256', Buffer.from(text), key).toString(encoding) })}`;
const der = (key: KeyObject) => key.export({ format: 'der', type: 'spki' });
const values = (...signed: string[]) => ({ method: 'OCMF', values: signed.map((s, i) => ({ nature: i === 0 ? 'Start' : 'End', signed: s })) });
const verdicts = (told: ReturnType<typeof checkSigned>) => told.values.map((v) => v.verdict);

describe('signed meter values', () => {
  it.each(curves)('hold by the key that made them and no other: %s', (curve, name) => {
    const { privateKey, publicKey } = pair(name);
    const signed = values(set(privateKey, curve, payload('B', 100.25)), set(privateKey, curve, payload('E', 128.5)));
    const told = checkSigned(signed, der(publicKey).toString('hex'));
    expect(told).toMatchObject({
      values: [{ nature: 'Start', verdict: 'holds', meter: 'Maker 7' }, { verdict: 'holds' }],
      kWh: '28.25',
      from: Date.UTC(2025, 9, 14, 11, 52),
    });
    expect(verdicts(checkSigned(signed, der(pair(name).publicKey).toString('hex')))).toEqual(['differs', 'differs']);
  });

  const { privateKey, publicKey } = pair('prime256v1');
  const begin = set(privateKey, 'secp256r1', payload('B', 100), 'base64');
  const end = set(privateKey, 'secp256r1', payload('E', 130));
  it('of which one was changed hold no energy', () => {
    const told = checkSigned(values(begin, end.replace('130', '180')), der(publicKey).toString('base64'));
    expect([verdicts(told), told.kWh]).toEqual([['holds', 'differs'], null]);
  });
  it('are read in base64, by a key in any of its forms', () => {
    const carried = values(btoa(begin), btoa(end));
    const pem = String(publicKey.export({ format: 'pem', type: 'spki' }));
    const spaced = der(publicKey)
      .toString('hex')
      .toUpperCase()
      .replace(/(.{8})/g, '$1 ');
    for (const key of [pem, spaced, der(publicKey).toString('base64')]) expect(checkSigned(carried, key)).toMatchObject({ kWh: '30' });
  });
  it('without a key, with one that is none, of another curve, or signed otherwise, say so', () => {
    expect(verdicts(checkSigned(values(begin), null))).toEqual(['no_key']);
    expect(verdicts(checkSigned(values(begin), ' '))).toEqual(['no_key']);
    expect(verdicts(checkSigned(values(begin), 'abc'))).toEqual(['bad_key']);
    const rsa = generateKeyPairSync('rsa', { modulusLength: 1024 }).publicKey;
    expect(verdicts(checkSigned(values(begin), der(rsa).toString('hex')))).toEqual(['bad_key']);
    expect(verdicts(checkSigned(values(begin), der(pair('secp384r1').publicKey).toString('hex')))).toEqual(['differs']);
    const key = der(publicKey).toString('hex');
    expect(verdicts(checkSigned(values('<xml/>', begin.replace('SHA256', 'SHA512'), begin.replace('secp256r1', 'ed25519')), key))).toEqual([
      'unknown',
      'unknown',
      'unknown',
    ]);
    expect(verdicts(checkSigned(values(begin.replace(/"SD":"[^"]+"/, '"SD":"zz"')), key))).toEqual(['differs']);
  });
});
