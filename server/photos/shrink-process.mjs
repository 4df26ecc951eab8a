// Reads one picture from standard input and writes it anew as JPEG to standard output; its size as JSON to standard error.
// A process of its own, started under limits by server/photos/shrink.ts: whatever a hostile picture does to a decoder,
// it does here. Ends with 2 for what is no picture that is taken, 3 for one with too many pixels.
import sharp from 'sharp';

const MOST_PIXELS = 40_000_000;
const SIDE = 1600;
// Of all formats the library knows, three are let in: no SVG, which is a program, and none that wraps another.
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({ operation: ['VipsForeignLoadJpegBuffer', 'VipsForeignLoadPngBuffer', 'VipsForeignLoadWebpBuffer'] });
sharp.cache(false);
sharp.concurrency(1);

const parts = [];
for await (const part of process.stdin) parts.push(part);
const sent = Buffer.concat(parts);
try {
  const { width, height } = await sharp(sent, { limitInputPixels: false }).metadata();
  if (width * height > MOST_PIXELS) process.exit(3);
  const { data, info } = await sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1, sequentialRead: true })
    .timeout({ seconds: 10 })
    .autoOrient()
    .resize({ width: SIDE, height: SIDE, fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 82 })
    .toBuffer({ resolveWithObject: true });
  process.stderr.write(JSON.stringify({ width: info.width, height: info.height }));
  process.stdout.write(data, () => process.exit(0));
} catch {
  process.exit(2);
}
