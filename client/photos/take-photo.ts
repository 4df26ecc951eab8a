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

/** A picture as it is kept and sent: scaled, named by its SHA-256. */
export type Photo = { sha256: string; bytes: Blob };

/** Makes a photo of a picture's file. @throws with a sentence */
export async function takePhoto(file: Blob): Promise<Photo> {
  const bytes = await scaled(file);
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', await bytes.arrayBuffer()));
  return { sha256: [...digest].map((b) => b.toString(16).padStart(2, '0')).join(''), bytes };
}
