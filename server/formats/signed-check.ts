import { createPublicKey, type KeyObject, verify } from 'node:crypto';
import { type CheckedRecord, networkRecords, type SignedTold, type SignedValue, type SignedVerdict } from '@/core/formats/network-record';
import { type Ocmf, readOcmf, signedEnergy } from '@/core/formats/ocmf';

/** Curves of OCMF by what they are called in a key; all of its algorithms sign with ECDSA over SHA-256. */
const CURVES: Readonly<Record<string, string>> = {
  secp192k1: 'secp192k1',
  secp256k1: 'secp256k1',
  secp192r1: 'prime192v1',
  secp256r1: 'prime256v1',
  secp384r1: 'secp384r1',
  secp521r1: 'secp521r1',
  brainpool256r1: 'brainpoolP256r1',
  brainpoolP256r1: 'brainpoolP256r1',
  brainpool384r1: 'brainpoolP384r1',
  brainpoolP384r1: 'brainpoolP384r1',
};

/** A key as it stands on a meter or in a record: SubjectPublicKeyInfo (RFC 5480) in hexadecimal digits, base64 or PEM. */
function keyOf(given: string): KeyObject | null {
  const bare = given.replace(/-----[A-Z ]+-----/g, '').replace(/\s/g, '');
  const bytes = /^(?:[0-9a-f]{2})+$/i.test(bare) ? Buffer.from(bare, 'hex') : Buffer.from(bare, 'base64');
  try {
    const key = createPublicKey({ key: bytes, format: 'der', type: 'spki' });
    return key.asymmetricKeyType === 'ec' ? key : null;
  } catch {
    return null;
  }
}

function verdictOf(set: Ocmf, key: KeyObject): SignedVerdict {
  const [, curve = '', hash] = /^ECDSA-([A-Za-z0-9]+)-(SHA256)$/.exec(set.signature.algorithm) ?? [];
  const named = CURVES[curve];
  if (!named || hash !== 'SHA256') return 'unknown';
  // A key of another curve made no signature of this one.
  if (key.asymmetricKeyDetails?.namedCurve !== named) return 'differs';
  const signature = Buffer.from(set.signature.data, set.signature.encoding);
  try {
    return verify('sha256', Buffer.from(set.payload, 'utf8'), key, signature) ? 'holds' : 'differs';
  } catch {
    // What the library cannot read as a signature costs the page nothing.
    return 'differs';
  }
}

/**
 * Holds signed meter values against a key, on this server alone.
 * @param key as it was given, `null`: none was
 */
export function checkSigned(signed: { method: string; values: readonly { nature: string; signed: string }[] }, key: string | null): SignedTold {
  const found = key === null || key.trim() === '' ? null : keyOf(key);
  const sets: Ocmf[] = [];
  const values = signed.values.map(({ nature, signed: given }): SignedValue => {
    const set = readOcmf(given);
    if (!set) return { nature, verdict: 'unknown', meter: null };
    const meter = [set.meter.vendor, set.meter.model, set.meter.serial].filter(Boolean).join(' ') || null;
    const verdict = key === null || key.trim() === '' ? 'no_key' : found ? verdictOf(set, found) : 'bad_key';
    if (verdict === 'holds') sets.push(set);
    return { nature, verdict, meter };
  });
  const energy = signedEnergy(sets);
  return { values, kWh: energy?.kWh ?? null, from: energy?.from ?? null, to: energy?.to ?? null };
}

/** The records of networks with what came of their signatures, by the key that came along. */
export const checkedRecords = (visit: Parameters<typeof networkRecords>[0]): CheckedRecord[] =>
  networkRecords(visit).map((r) => ({ ...r, told: r.signed && checkSigned(r.signed, r.signed.key) }));
