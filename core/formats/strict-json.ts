import { finish, type Steps } from '../units/steps';

/** Deeper, longer or greater than this nobody writes by hand or by machine. Choices. */
const MOST = { depth: 64, bytes: 25 * 1024 * 1024, digits: 40, exponent: 30 };

/** Any number that a program writes who keeps them in 64 bits (IEEE 754): what was kept here once must come back. */
export const ANY_DOUBLE = { digits: 800, exponent: 400 };

/** A number as it was written: nothing is lost by reading it. */
export class JsonNumber {
  constructor(readonly text: string) {}
  get value(): number {
    return Number(this.text);
  }
}
export type Json = null | boolean | string | JsonNumber | Json[] | JsonObject;
/** Members in the order of the document. */
export type JsonObject = Map<string, Json>;

export type JsonRefused = {
  code: 'too_large' | 'bad_encoding' | 'nul_byte' | 'too_deep' | 'duplicate_key' | 'lone_surrogate' | 'bad_number' | 'not_json';
  /** A byte of the document, or a JSON pointer (RFC 6901). */
  where: { byte: number } | { pointer: string };
};
export type JsonRead = { ok: true; value: Json } | ({ ok: false } & JsonRefused);

/** A key or index as a part of a JSON pointer. */
export const pointerPart = (part: string | number): string => `/${String(part).replaceAll('~', '~0').replaceAll('/', '~1')}`;

/** The first byte that is no UTF-8, or −1. RFC 3629: no overlong form, no surrogate, nothing beyond U+10FFFF. */
export function badUtf8(bytes: Uint8Array): number {
  for (let i = 0; i < bytes.length; ) {
    const b = bytes[i] as number;
    if (b < 0x80) {
      i += 1;
      continue;
    }
    const more = b >= 0xc2 && b <= 0xdf ? 1 : b >= 0xe0 && b <= 0xef ? 2 : b >= 0xf0 && b <= 0xf4 ? 3 : 0;
    if (more === 0) return i;
    const second = bytes[i + 1] ?? 0;
    const low = b === 0xe0 ? 0xa0 : b === 0xf0 ? 0x90 : 0x80;
    const high = b === 0xed ? 0x9f : b === 0xf4 ? 0x8f : 0xbf;
    if (second < low || second > high) return i;
    for (let k = 2; k <= more; k++) if (((bytes[i + k] ?? 0) & 0xc0) !== 0x80) return i;
    i += more + 1;
  }
  return -1;
}

/** So many values are one step. */
const VALUES_A_STEP = 1000;

type Frame = { list: Json[] } | { object: JsonObject; key: string };

/**
 * Reads a JSON text (RFC 8259) strictly: UTF-8, a BOM skipped, keys once, whole surrogate pairs, numbers of sane size,
 * and only so deep. No recursion: what is nested too deep is told, not fallen over.
 * @param numbers how long and how great a number may be
 */
export const readJson = (bytes: Uint8Array, numbers: { digits: number; exponent: number } = MOST): JsonRead => finish(readingJson(bytes, numbers));

/** The same in steps. */
export function* readingJson(bytes: Uint8Array, numbers: { digits: number; exponent: number } = MOST): Steps<JsonRead> {
  const refuse = (code: JsonRefused['code'], where: JsonRefused['where']): JsonRead => ({ ok: false, code, where });
  if (bytes.length > MOST.bytes) return refuse('too_large', { byte: MOST.bytes });
  const bad = badUtf8(bytes);
  const nul = bytes.indexOf(0);
  if (nul >= 0 && (bad < 0 || nul < bad)) return refuse('nul_byte', { byte: nul });
  if (bad >= 0) return refuse('bad_encoding', { byte: bad });
  const text = new TextDecoder('utf-8').decode(bytes);
  const stack: Frame[] = [];
  const pointer = () => stack.map((f) => pointerPart('list' in f ? f.list.length : f.key)).join('');
  let at = 0;
  let root: Json | undefined;
  const blank = () => {
    while (at < text.length && ' \t\n\r'.includes(text[at] as string)) at += 1;
  };
  const no = () => refuse('not_json', { byte: new TextEncoder().encode(text.slice(0, at)).length });
  /** A value is whole: it goes where it belongs. */
  const put = (value: Json) => {
    const frame = stack.at(-1);
    if (!frame) root = value;
    else if ('list' in frame) frame.list.push(value);
    else frame.object.set(frame.key, value);
  };
  /** The key of a member and its colon. @returns what is wrong */
  const key = (object: JsonObject): JsonRead | null => {
    blank();
    if (text[at] !== '"') return no();
    const read = string(text, at);
    if (!read) return no();
    at = read.end;
    const frame = stack.at(-1) as Extract<Frame, { object: JsonObject }>;
    frame.key = read.value;
    if (read.half) return refuse('lone_surrogate', { pointer: pointer() });
    if (read.value.includes('\0')) return refuse('nul_byte', { pointer: pointer() });
    if (object.has(read.value)) return refuse('duplicate_key', { pointer: pointer() });
    blank();
    if (text[at] !== ':') return no();
    at += 1;
    return null;
  };
  for (let values = 1; ; values++) {
    if (values % VALUES_A_STEP === 0) yield;
    blank();
    const c = text[at];
    if (c === '[' || c === '{') {
      if (stack.length >= MOST.depth) return refuse('too_deep', { pointer: pointer() });
      at += 1;
      blank();
      if (c === '[') {
        stack.push({ list: [] });
        if (text[at] !== ']') continue;
      } else {
        const object: JsonObject = new Map();
        stack.push({ object, key: '' });
        if (text[at] !== '}') {
          const wrong = key(object);
          if (wrong) return wrong;
          continue;
        }
      }
    } else if (c === '"') {
      const read = string(text, at);
      if (!read) return no();
      if (read.half) return refuse('lone_surrogate', { pointer: pointer() });
      if (read.value.includes('\0')) return refuse('nul_byte', { pointer: pointer() });
      at = read.end;
      put(read.value);
    } else {
      const word = ['true', 'false', 'null'].find((w) => text.startsWith(w, at));
      if (word) {
        put(word === 'null' ? null : word === 'true');
        at += word.length;
      } else {
        NUMBER.lastIndex = at;
        const n = NUMBER.exec(text)?.[0];
        if (!n) return no();
        if (tooGreat(n, numbers)) return refuse('bad_number', { pointer: pointer() });
        put(new JsonNumber(n));
        at += n.length;
      }
    }
    // What follows a value: its containers' ends, a comma, or nothing.
    for (;;) {
      blank();
      const frame = stack.at(-1);
      if (!frame) return at < text.length ? no() : { ok: true, value: root as Json };
      const list = 'list' in frame;
      if (text[at] === (list ? ']' : '}')) {
        at += 1;
        stack.pop();
        put(list ? frame.list : frame.object);
        continue;
      }
      if (text[at] !== ',') return no();
      at += 1;
      if (!list) {
        const wrong = key(frame.object);
        if (wrong) return wrong;
      }
      break;
    }
  }
}

const NUMBER = /-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/y;
function tooGreat(n: string, most: { digits: number; exponent: number }): boolean {
  const [digits = '', exponent = '0'] = n.toLowerCase().split('e');
  return digits.replace(/\D/g, '').length > most.digits || Math.abs(Number(exponent)) > most.exponent;
}

const ESCAPED: Readonly<Record<string, string>> = { '"': '"', '\\': '\\', '/': '/', b: '\b', f: '\f', n: '\n', r: '\r', t: '\t' };
/** The string that begins at a quote; `null` when it is none. `half`: it holds half a surrogate pair. */
function string(text: string, from: number): { value: string; end: number; half: boolean } | null {
  let value = '';
  let at = from + 1;
  for (;;) {
    PLAIN.lastIndex = at;
    const plain = PLAIN.exec(text)?.[0] ?? '';
    value += plain;
    at += plain.length;
    const c = text[at];
    if (c === '"') return { value, end: at + 1, half: HALF.test(value) };
    if (c !== '\\') return null;
    const e = text[at + 1] ?? '';
    const hex = /^[0-9a-fA-F]{4}/.exec(text.slice(at + 2, at + 6))?.[0];
    if (e === 'u' && hex) {
      value += String.fromCharCode(Number.parseInt(hex, 16));
      at += 6;
    } else if (e in ESCAPED) {
      value += ESCAPED[e];
      at += 2;
    } else return null;
  }
}
// Everything up to a quote, an escape or a control character.
// biome-ignore lint/suspicious/noControlCharactersInRegex: a JSON string holds none unescaped
const PLAIN = /[^"\\\u0000-\u001f]*/y;
/** Half of a surrogate pair by itself. */
const HALF = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;
