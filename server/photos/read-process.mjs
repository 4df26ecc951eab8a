// Reads the text of one picture from standard input, and writes it with its lines to standard output as JSON. A process of its own, started by server/photos/read-text.ts:
// whatever a picture does to a decoder or a reader, it does here. Ends with 2 for what is no picture that is taken, 3 for one with too many pixels.
import { createRequire } from 'node:module';
import path from 'node:path';
import sharp from 'sharp';
import { createWorker, OEM, PSM } from 'tesseract.js';

const MOST_PIXELS = 40_000_000;
/** The longest side that is read: letters of a receipt are some thirty pixels high then. */
const SIDE = 2000;
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({ operation: ['VipsForeignLoadJpegBuffer', 'VipsForeignLoadPngBuffer', 'VipsForeignLoadWebpBuffer'] });
sharp.cache(false);
sharp.concurrency(1);

/** The data of the reader, as its package ships it: nothing is fetched. */
const DATA = path.join(path.dirname(createRequire(import.meta.url).resolve('@tesseract.js-data/eng/package.json')), '4.0.0_best_int');

const parts = [];
for await (const part of process.stdin) parts.push(part);
const sent = Buffer.concat(parts);
let picture;
try {
  const { width, height } = await sharp(sent, { limitInputPixels: false }).metadata();
  if (width * height > MOST_PIXELS) process.exit(3);
  picture = await sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1 })
    .timeout({ seconds: 10 })
    .autoOrient()
    .greyscale()
    .resize({ width: SIDE, height: SIDE, fit: 'inside' })
    .png({ compressionLevel: 1 })
    .toBuffer({ resolveWithObject: true });
} catch {
  process.exit(2);
}
const worker = await createWorker('eng', OEM.LSTM_ONLY, { langPath: DATA, gzip: true, cacheMethod: 'none' });
// Ink is told from paper by what is around it (Sauvola): light falls unevenly on a receipt.
await worker.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_BLOCK, preserve_interword_spaces: '1', thresholding_method: '2' });
const { data } = await worker.recognize(picture.data, { rotateAuto: true }, { text: true, blocks: true });
await worker.terminate();
const lines = (data.blocks ?? []).flatMap((b) => b.paragraphs).flatMap((p) => p.lines);
const { width, height } = picture.info;
// Where a line stands is told as a share of the picture: it is shown in another size.
const share = ({ x0, y0, x1, y1 }) => ({ x: x0 / width, y: y0 / height, w: (x1 - x0) / width, h: (y1 - y0) / height });
const said = {
  text: data.text,
  confidence: data.confidence / 100,
  lines: lines.map((l) => ({ text: l.text.trim(), confidence: l.confidence / 100, at: share(l.bbox) })),
};
process.stdout.write(JSON.stringify(said), () => process.exit(0));
