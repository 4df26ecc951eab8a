import iconv from 'iconv-lite';
import { badUtf8 } from './strict-json';

export type SheetEncoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252' | 'windows-1250';
export type SheetRefused = {
  code: 'nul_byte' | 'bad_encoding' | 'empty' | 'record_too_long' | 'too_many_columns' | 'too_many_rows';
  where: { byte: number } | { line: number } | null;
};
/** The text of a sheet. `other`: as Windows-1250 would read it, where a byte of it tells the two apart. */
export type SheetText = { ok: true; text: string; encoding: SheetEncoding; bom: boolean; other: string | null } | ({ ok: false } & SheetRefused);

/** Text in UTF-16 without a BOM has so many zeros among its high bytes. A choice. */
const ZEROS = 0.4;

/** Reads the bytes of a sheet: by its BOM, else by what they can be. */
export function sheetText(bytes: Uint8Array): SheetText {
  const starts = (...b: number[]) => b.every((x, i) => bytes[i] === x);
  if (starts(0xef, 0xbb, 0xbf)) return utf8(bytes, 3);
  if (starts(0xff, 0xfe)) return utf16(bytes, 2, 'utf-16le');
  if (starts(0xfe, 0xff)) return utf16(bytes, 2, 'utf-16be');
  if (looksLikeUtf16(bytes)) return utf16(bytes, 0, 'utf-16le');
  if (badUtf8(bytes) < 0) return utf8(bytes, 0);
  const nul = bytes.indexOf(0);
  if (nul >= 0) return { ok: false, code: 'nul_byte', where: { byte: nul } };
  // The TextDecoder of this Node.js reads Windows-1252 as ISO 8859-1: its € would be a control character.
  const [text, other] = (['windows-1252', 'windows-1250'] as const).map((e) => iconv.decode(Buffer.from(bytes), e)) as [string, string];
  return { ok: true, text, encoding: 'windows-1252', bom: false, other: other === text ? null : other };
}

function looksLikeUtf16(bytes: Uint8Array): boolean {
  if (bytes.length < 2 || bytes.length % 2 !== 0) return false;
  let zeros = 0;
  for (let i = 0; i < bytes.length; i += 2) {
    if (bytes[i] === 0) return false;
    if (bytes[i + 1] === 0) zeros += 1;
  }
  return zeros >= ZEROS * (bytes.length / 2);
}

function utf8(bytes: Uint8Array, bom: number): SheetText {
  const bad = badUtf8(bytes);
  const nul = bytes.indexOf(0);
  if (nul >= 0 && (bad < 0 || nul < bad)) return { ok: false, code: 'nul_byte', where: { byte: nul } };
  if (bad >= 0) return { ok: false, code: 'bad_encoding', where: { byte: bad } };
  return { ok: true, text: new TextDecoder('utf-8').decode(bytes.subarray(bom)), encoding: 'utf-8', bom: bom > 0, other: null };
}

function utf16(bytes: Uint8Array, bom: number, encoding: 'utf-16le' | 'utf-16be'): SheetText {
  const unit = (i: number) =>
    encoding === 'utf-16le' ? (bytes[i] as number) | ((bytes[i + 1] as number) << 8) : ((bytes[i] as number) << 8) | (bytes[i + 1] as number);
  for (let i = bom; i < bytes.length; i += 2) {
    if (i + 1 >= bytes.length) return { ok: false, code: 'bad_encoding', where: { byte: i } };
    const u = unit(i);
    if (u === 0) return { ok: false, code: 'nul_byte', where: { byte: i } };
    const high = u >= 0xd800 && u <= 0xdbff;
    if (high && i + 3 < bytes.length && unit(i + 2) >= 0xdc00 && unit(i + 2) <= 0xdfff) i += 2;
    else if (high || (u >= 0xdc00 && u <= 0xdfff)) return { ok: false, code: 'bad_encoding', where: { byte: i } };
  }
  const text = new TextDecoder(encoding, { ignoreBOM: true }).decode(bytes.subarray(bom));
  return { ok: true, text, encoding, bom: bom > 0, other: null };
}
