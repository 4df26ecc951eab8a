import sharp from 'sharp';

/** The demo's one photo: drawn, since no real place is shown. A turning between two posts, as JPEG. */
export const entrancePicture = (): Promise<Buffer> =>
  sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="960" height="640">
      <rect width="960" height="640" fill="#c9d6dc"/><path d="M0 300 180 210 330 290 520 180 760 280 960 230V640H0Z" fill="#7d8f78"/>
      <path d="M0 640 420 330H540L960 640Z" fill="#3a4347"/><path d="M470 640 478 340" stroke="#f4f6f2" stroke-width="10" stroke-dasharray="34 30"/>
      <path d="M540 400 960 430V520L560 440Z" fill="#4a5459"/><rect x="640" y="250" width="18" height="170" fill="#54625b"/>
      <path d="M560 190h170l40 45-40 45H560Z" fill="#f6bc0a" stroke="#15201c" stroke-width="6"/>
      <path d="M690 215a22 22 0 1 0 0 40M640 235h44" stroke="#15201c" stroke-width="8" fill="none"/>
      <rect x="120" y="260" width="150" height="90" fill="#9a6b4f"/><path d="M105 262 195 200 285 262Z" fill="#6d4632"/></svg>`),
  )
    .jpeg({ quality: 80 })
    .toBuffer();
