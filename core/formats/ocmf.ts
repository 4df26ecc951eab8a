import Big from 'big.js';

/**
 * One data set of the Open Charge Metering Format (OCMF 1.0 of the S.A.F.E. e.V., from memory): `OCMF|<payload>|<signature>`, both JSON. What is signed is the text of the payload as it stands.
 * `data`: the bytes of the signature, in hexadecimal digits or base64 as `encoding` says.
 */
export type Ocmf = {
  payload: string;
  signature: { algorithm: string; encoding: 'hex' | 'base64'; data: string };
  meter: { vendor: string | null; model: string | null; serial: string | null };
  readings: OcmfReading[];
};
/** One reading: `at` in UTC ms, `null` where its time is not understood; `tx` why it was taken, B begin, E end; `status` G good. */
export type OcmfReading = { at: number | null; tx: string; kWh: string | null; of: string; status: string };

const DEFAULT_ALGORITHM = 'ECDSA-secp256r1-SHA256';
const text = (v: unknown): string | null => (typeof v === 'string' && v !== '' ? v : null);
const object = (v: unknown): Record<string, unknown> | null =>
  typeof v === 'object' && v !== null && !Array.isArray(v) ? (v as Record<string, unknown>) : null;
function parsed(json: string): Record<string, unknown> | null {
  try {
    return object(JSON.parse(json));
  } catch {
    return null;
  }
}

/** `2018-07-24T13:22:04,000+0200 S`: the last letter says how well the clock was set. */
function instant(tm: unknown): number | null {
  const m = /^(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d)(?:[,.](\d{1,3})\d*)?([+-]\d\d):?(\d\d)(?: [UISR])?$/.exec(typeof tm === 'string' ? tm : '');
  const t = m ? Date.parse(`${m[1]}.${(m[2] ?? '0').padEnd(3, '0')}${m[3]}:${m[4]}`) : Number.NaN;
  return Number.isNaN(t) ? null : t;
}
/** A register in kWh; `null`: it is none of energy, or no number. */
function energy(value: unknown, unit: unknown): string | null {
  const digits = typeof value === 'number' || typeof value === 'string' ? String(value) : '';
  if (!/^-?\d{1,15}(\.\d{1,9})?$/.test(digits)) return null;
  return unit === 'kWh' ? new Big(digits).toFixed() : unit === 'Wh' ? new Big(digits).div(1000).toFixed() : null;
}

/** Reads one data set, as it stands or in base64, as OCPI carries it. `null`: it is none. */
export function readOcmf(given: string): Ocmf | null {
  const said = given.startsWith('OCMF|') ? given : fromBase64(given);
  const end = said.lastIndexOf('|');
  if (!said.startsWith('OCMF|') || end <= 5) return null;
  const payload = said.slice(5, end);
  const [data, signature] = [parsed(payload), parsed(said.slice(end + 1))];
  const signed = text(signature?.SD);
  if (!data || !signature || !signed) return null;
  const readings: OcmfReading[] = [];
  // A field that a reading leaves out is that of the one before.
  let last: Record<string, unknown> = {};
  for (const raw of Array.isArray(data.RD) ? data.RD.slice(0, 1000) : []) {
    const r = object(raw);
    if (!r) continue;
    last = { ...last, ...r };
    readings.push({ at: instant(last.TM), tx: text(last.TX) ?? '', kWh: energy(last.RV, last.RU), of: text(last.RI) ?? '', status: text(last.ST) ?? '' });
  }
  return {
    payload,
    signature: { algorithm: text(signature.SA) ?? DEFAULT_ALGORITHM, encoding: signature.SE === 'base64' ? 'base64' : 'hex', data: signed },
    meter: { vendor: text(data.MV), model: text(data.MM), serial: text(data.MS) },
    readings,
  };
}

function fromBase64(given: string): string {
  if (!/^[A-Za-z0-9+/=\s]+$/.test(given)) return '';
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Uint8Array.from(atob(given.replace(/\s/g, '')), (c) => c.charCodeAt(0)));
  } catch {
    return '';
  }
}

const BEGIN = 'B';
/** Ended by the driver, at the post, from afar, by a fault, by a power cut. */
const ENDS: ReadonlySet<string> = new Set(['E', 'L', 'R', 'A', 'P']);

/** What the signed registers say was delivered, kWh, and from when to when; `null` without a beginning and an end of one register. */
export function signedEnergy(sets: readonly Pick<Ocmf, 'readings'>[]): { kWh: string; from: number | null; to: number | null } | null {
  const all = sets.flatMap((s) => s.readings).filter((r) => r.kWh !== null);
  const begin = all.find((r) => r.tx === BEGIN);
  const end = all.findLast((r) => ENDS.has(r.tx) && r.of === begin?.of);
  if (!begin || !end) return null;
  return { kWh: new Big(end.kWh as string).minus(begin.kWh as string).toFixed(), from: begin.at, to: end.at };
}
