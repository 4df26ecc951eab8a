/**
 * The size of a JPEG that holds its picture and nothing beside it, as a picture that was written anew is: baseline, no segment of a camera or program but the JFIF one, no
 * comment, nothing after its end; `null` for any other. ISO/IEC 10918-1, from memory.
 */
export function bareJpegSize(bytes: Uint8Array): { width: number; height: number } | null {
  const two = (at: number) => ((bytes[at] ?? 0) << 8) | (bytes[at + 1] ?? 0);
  if (two(0) !== 0xffd8) return null;
  let size: { width: number; height: number } | null = null;
  let at = 2;
  for (; two(at) !== 0xffda; at += 2 + two(at + 2)) {
    const marker = two(at);
    // Quantisation, Huffman tables, restart interval, JFIF, baseline frame: all that such a picture is made of.
    if (![0xffdb, 0xffc4, 0xffdd, 0xffe0, 0xffc0].includes(marker)) return null;
    if (marker === 0xffc0) size = { height: two(at + 5), width: two(at + 7) };
  }
  // Within the picture 0xff is followed by a zero or a restart: the first end there is its end.
  for (; at < bytes.length - 2; at++) if (two(at) === 0xffd9) return null;
  return two(bytes.length - 2) === 0xffd9 ? size : null;
}
