// 100,000 files that were bent, over every reader of a file: how many it refused, read, and threw at (none is to be). Prints counts; asserts nothing. Run by bin/bench.
import { randomLcg } from 'd3-random';
import { readCarLog } from '@/core/formats/car-log';
import geojson from '@/core/formats/fixtures/geojson.json';
import ocpi from '@/core/formats/fixtures/ocpi.json';
import receipts from '@/core/formats/fixtures/receipts.json';
import sheets from '@/core/formats/fixtures/sheets-in.json';
import zips from '@/core/formats/fixtures/zips.json';
import { geojsonIn } from '@/core/formats/geojson';
import { openLedger } from '@/core/formats/ledger-file';
import { cdrsIn } from '@/core/formats/ocpi-cdrs';
import { locationsIn } from '@/core/formats/ocpi-locations';
import { readReceipt } from '@/core/formats/receipt-text';
import { readSheet } from '@/core/formats/sheet-import';
import { type Json, readJson } from '@/core/formats/strict-json';
import { tariffProposals } from '@/core/formats/tariff-proposals';
import { openZip } from '@/core/formats/zip-in';
import { compileTariff } from '@/core/tariff/compiled-tariff';

const CASES = Number(process.env.BENCH_CASES ?? 100_000);
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`);
const random = randomLcg(0.20251127);
const below = (n: number) => Math.floor(random() * n);
const pick = <T>(of: readonly T[]): T => of[below(of.length)] as T;
const bytesOf = (base64: string) => Uint8Array.from(Buffer.from(base64, 'base64'));
const utf8 = (text: string) => new TextEncoder().encode(text);

/** What is put in where something else stood: marks, ends of lines, half characters, what other languages read as code. */
const PIECES = [
  '"',
  "'",
  ';',
  ',',
  '\t',
  '\r\n',
  '\r',
  '\n',
  '\u0000',
  '\ufeff',
  '{',
  '}',
  '[',
  ']',
  ':',
  '\\',
  '=1+1',
  '-',
  '1e999',
  '-0',
  '9'.repeat(40),
  '<script>',
  '€',
  'č',
  '\u202e',
  '"__proto__":{}',
  'null',
  'true',
  '"a":',
].map(utf8);
const RAW = [Uint8Array.of(0xff), Uint8Array.of(0xed, 0xa0, 0x80), Uint8Array.of(0xc3), Uint8Array.of(0x50, 0x4b, 0x03, 0x04), Uint8Array.of(0xff, 0xfe)];

/** A file with one to four things wrong: a byte changed, a part cut out, said twice or put elsewhere, something put in, its end lost. */
function bent(file: Uint8Array): Uint8Array {
  let out = Uint8Array.from(file);
  for (let n = 1 + below(4); n > 0; n--) {
    const [at, length] = [below(out.length + 1), 1 + below(40)];
    const [head, part, tail] = [out.slice(0, at), out.slice(at, at + length), out.slice(at + length)];
    switch (below(6)) {
      case 0:
        if (out.length > 0) out[Math.min(at, out.length - 1)] = below(256);
        break;
      case 1:
        out = Uint8Array.from([...head, ...tail]);
        break;
      case 2:
        out = Uint8Array.from([...head, ...part, ...part, ...tail]);
        break;
      case 3:
        out = Uint8Array.from([...head, ...pick(random() < 0.8 ? PIECES : RAW), ...part, ...tail]);
        break;
      case 4:
        out = head;
        break;
      default:
        out = Uint8Array.from([...tail, ...part, ...head]);
    }
  }
  return out;
}

const ODD: readonly unknown[] = [
  null,
  true,
  '',
  'x',
  '__proto__',
  -1,
  0,
  1e308,
  12.5,
  [],
  {},
  [[[]]],
  '2025-13-45T99:00:00Z',
  '2025-10-14T13:52:00Z',
  'SI',
  '\u0000',
  'é'.repeat(300),
];
/** The same JSON with one to three of its values taken out, put twice or put something odd in place of, so that it is still JSON. */
function bentJson(file: Uint8Array): Uint8Array {
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder().decode(file));
  } catch {
    return bent(file);
  }
  for (let n = 1 + below(3); n > 0; n--) {
    const spots: [Record<string, unknown> | unknown[], string | number][] = [];
    const walk = (v: unknown): void => {
      if (typeof v !== 'object' || v === null) return;
      for (const k of Array.isArray(v) ? v.keys() : Object.keys(v)) {
        spots.push([v as unknown[], k]);
        walk((v as Record<string | number, unknown>)[k]);
      }
    };
    walk(value);
    if (spots.length === 0) return utf8(JSON.stringify(pick(ODD)));
    const [of, key] = pick(spots);
    if (Array.isArray(of)) of.splice(Number(key), below(2), structuredClone(pick([...ODD, of[Number(key)]])));
    else if (random() < 0.4) delete of[key];
    else of[random() < 0.1 ? `${key}x` : key] = structuredClone(pick(ODD));
  }
  return utf8(JSON.stringify(value));
}

const world = { sites: sheets.world.sites, networks: sheets.world.networks };
const settings = { zone: 'Europe/Ljubljana', now: Date.parse('2025-10-15T10:00:00Z'), currency: 'EUR' };
const small = (b: Uint8Array) => b.length > 0 && b.length < 20_000;
const sheetFiles = sheets.cases.flatMap((c) => ('bytes' in c && typeof c.bytes === 'string' ? [bytesOf(c.bytes)] : [])).filter(small);
const ocpiFiles = (kind: string) =>
  ocpi.cases.flatMap((c) => (c.kind === kind && 'bytes' in c && typeof c.bytes === 'string' ? [bytesOf(c.bytes)] : [])).filter(small);
const kinds = [...new Set(ocpi.cases.map((c) => c.kind))];
const zipFiles = zips.cases.map((c) => bytesOf(c.base64)).filter(small);
const log = utf8(
  ['timestamp,power (kW),soc (%)', ...Array.from({ length: 30 }, (_, i) => `2025-10-14T13:52:${10 + i}+02:00,${50 + i},${20 + i}`)].join('\r\n'),
);
const ledger = utf8(
  JSON.stringify({
    format: 'mile-ledger',
    version: 1,
    household: { id: 'a', name: 'b', currency: 'EUR', zone: 'UTC' },
    people: [],
    records: [{ type: 'car', id: 'x', fields: { name: 'y' } }],
    events: [],
    parts: [],
    watches: [],
    views: [],
    photos: [],
  }),
);

/** Reads JSON, then what is in it. @returns whether anything of it could be used */
const json = (bytes: Uint8Array, then: (value: Json) => unknown): boolean => {
  const read = readJson(bytes);
  if (!read.ok) return false;
  then(read.value);
  return true;
};
/** `json`: half of its files are bent so that they are JSON still, and its rules are reached. */
type Reader = { name: string; json?: true; files: readonly Uint8Array[]; read: (bytes: Uint8Array) => boolean | Promise<boolean> };
const inOcpi = (into: (document: Json) => unknown) => (bytes: Uint8Array) => json(bytes, into);
const EVERY: readonly Reader[] = [
  { name: 'spreadsheets', files: sheetFiles, read: (b) => readSheet(b, world, settings).ok },
  { name: 'OCPI Locations', json: true, files: kinds.filter((k) => /location/i.test(k)).flatMap(ocpiFiles), read: inOcpi(locationsIn) },
  {
    name: 'OCPI Tariffs',
    json: true,
    files: kinds.filter((k) => /tariff/i.test(k)).flatMap(ocpiFiles),
    read: inOcpi((d) => tariffProposals(d, settings.zone).proposals.map((p) => compileTariff(p.tariff))),
  },
  { name: 'OCPI CDRs', json: true, files: kinds.filter((k) => /cdr/i.test(k)).flatMap(ocpiFiles), read: inOcpi(cdrsIn) },
  {
    name: 'GeoJSON',
    json: true,
    files: geojson.cases.flatMap((c) => ('text' in c && typeof c.text === 'string' ? [utf8(c.text)] : [])),
    read: (b) => json(b, (v) => geojsonIn(v, [], () => false)),
  },
  {
    name: 'receipts',
    files: receipts.cases.map((c) => utf8(c.text)),
    read: (b) => Object.values(readReceipt(new TextDecoder().decode(b), receipts.sites, settings.now).proposal).some((x) => x !== null),
  },
  { name: 'car logs', files: [log], read: (b) => readCarLog(b).ok },
  { name: 'zips', files: zipFiles, read: async (b) => (await openZip(b)).ok },
  { name: 'ledgers', files: [ledger, ...zipFiles], read: async (b) => (await openLedger(b)).ok },
];
const READERS = EVERY.filter((r) => r.files.length > 0);

let all = 0;
for (const { name, json: isJson, files, read } of READERS) {
  const cases = Math.ceil(CASES / READERS.length);
  let [used, refused, threw, worst, why] = [0, 0, 0, 0, ''];
  for (let i = 0; i < cases; i++) {
    const file = isJson && i % 2 === 0 ? bentJson(pick(files)) : bent(pick(files));
    const started = performance.now();
    try {
      if (await read(file)) used += 1;
      else refused += 1;
    } catch (error) {
      threw += 1;
      why ||= `: ${String(error).slice(0, 120)} at ${Buffer.from(file).toString('base64').slice(0, 200)}`;
    }
    worst = Math.max(worst, performance.now() - started);
  }
  all += cases;
  say(`${cases} bent ${name}`, `${used} read as far as they go, ${refused} refused, ${threw} thrown at${why}; the slowest took ${worst.toFixed(0)} ms`);
}
say('files in all', String(all));
