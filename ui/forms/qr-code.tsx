import { encode } from 'uqr';

/** A link as a QR code (ISO/IEC 18004), dark on light whatever the colours of the page: cameras read it so. Four modules of rest around it. */
export function QrCode({ text, label }: { text: string; label: string }) {
  const { data, size } = encode(text, { ecc: 'M', border: 4 });
  const dark = data.flatMap((row, y) => row.flatMap((on, x) => (on ? [`M${x} ${y}h1v1h-1z`] : [])));
  return (
    <svg role="img" aria-label={label} viewBox={`0 0 ${size} ${size}`} className="size-[min(240px,100%)]" shapeRendering="crispEdges">
      <rect width={size} height={size} fill="#fff" />
      <path d={dark.join('')} fill="#000" />
    </svg>
  );
}
