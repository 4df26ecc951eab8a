const gps = jest.fn();
let here = true;
jest.mock('exifr/dist/mini.esm.mjs', () => ({
  get gps() {
    if (!here) throw new TypeError('Failed to fetch dynamically imported module');
    return gps;
  },
}));

import { photoPosition } from './photo-position';

const picture = new Blob(['x']);
describe('where a picture was taken', () => {
  it('stays unread where its reader is not here; the picture goes without', async () => {
    here = false;
    expect(await photoPosition(picture)).toBe('unread');
    here = true;
    gps.mockResolvedValueOnce(undefined);
    expect(await photoPosition(picture)).toBeNull();
  });
  it('is what the picture says, to the metre, or nothing', async () => {
    gps.mockResolvedValueOnce({ latitude: 46.0511234, longitude: 14.5059876 });
    expect(await photoPosition(picture)).toEqual({ latitude: 46.05112, longitude: 14.50599 });
    gps.mockResolvedValueOnce({ latitude: Number.NaN, longitude: 14 });
    expect(await photoPosition(picture)).toBeNull();
    gps.mockRejectedValueOnce(new Error('no picture'));
    expect(await photoPosition(picture)).toBeNull();
  });
});
