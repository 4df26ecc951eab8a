import sharp from 'sharp';
import { bareJpegSize } from './bare-jpeg';

const picture = (more: (s: ReturnType<typeof sharp>) => ReturnType<typeof sharp> = (s) => s) =>
  more(sharp({ create: { width: 40, height: 30, channels: 3, background: '#8a7' } }))
    .jpeg({ quality: 82 })
    .toBuffer();

describe('a JPEG with nothing beside its picture', () => {
  it('is known by its size', async () => {
    expect(bareJpegSize(await picture())).toEqual({ width: 40, height: 30 });
  });
  it('is no other: with where it was taken, a comment, something behind its end, cut short, progressive, or none', async () => {
    const bare = await picture();
    const exif = await picture((s) => s.withExif({ IFD0: { Copyright: 'somebody' } }));
    const comment = Buffer.concat([bare.subarray(0, 2), Buffer.from([0xff, 0xfe, 0, 5, 1, 2, 3]), bare.subarray(2)]);
    const progressive = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#8a7' } })
      .jpeg({ progressive: true })
      .toBuffer();
    for (const other of [
      exif,
      comment,
      progressive,
      Buffer.concat([bare, Buffer.from('<script>')]),
      Buffer.concat([bare, bare]),
      bare.subarray(0, -2),
      bare.subarray(0, 30),
      Buffer.alloc(0),
      Buffer.from([0xff, 0xd8]),
    ])
      expect(bareJpegSize(other)).toBeNull();
  });
});
