import { type PhoneStore, STRICT } from '../store/phone-store';

const MOST_PIXELS = 1600;
const MOST_BYTES = 40_000_000;

/** A picture scaled to at most 1600 pixels a side, as JPEG. Drawing it anew leaves its position and camera behind. @throws with a sentence when it cannot be read */
async function scaled(file: Blob): Promise<Blob> {
  if (file.size > MOST_BYTES) throw new Error('This picture is larger than 40 MB.');
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    throw new Error('This is not a picture that this browser can read.');
  }
  const scale = Math.min(1, MOST_PIXELS / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((done, fail) => canvas.toBlob((b) => (b ? done(b) : fail(new Error('The picture could not be written.'))), 'image/jpeg', 0.82));
}

/** Keeps a picture on the phone, scaled, until the server has it. @returns its SHA-256 */
export async function keepPhoto(store: PhoneStore, file: Blob): Promise<string> {
  const bytes = await scaled(file);
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', await bytes.arrayBuffer()));
  const sha256 = [...digest].map((b) => b.toString(16).padStart(2, '0')).join('');
  const tx = store.transaction('photo', 'readwrite', STRICT);
  if (!(await tx.store.get(sha256))) await tx.store.put({ sha256, bytes, state: 'kept' });
  await tx.done;
  return sha256;
}

/** Sends the photos that the server has not got. @returns false when it cannot be reached or nobody is signed in */
export async function sendPhotos(store: PhoneStore): Promise<boolean> {
  for (const p of await store.getAll('photo')) {
    if (p.state === 'sent') continue;
    let status: number;
    try {
      status = (await fetch(`/api/v1/photos/${p.sha256}`, { method: 'PUT', headers: { 'content-type': 'image/jpeg' }, body: p.bytes })).status;
    } catch {
      return false;
    }
    // What the server cannot read stays on the phone, marked as dealt with, and is not sent in a ring.
    if (status === 200 || status === 201 || status === 413 || status === 422) await store.put('photo', { ...p, state: 'sent' });
    else return false;
  }
  return true;
}
