/** The paint of the tape: hatches that every tape on a page uses. Once per page. */
export function TapePaint() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true" focusable="false">
      <title>Tape paint</title>
      <defs>
        {/* Fault: chevrons leaning forward. Idle: thin hatch leaning back. Told apart without colour. */}
        <pattern id="paint-fault" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(25)">
          <rect width="8" height="8" fill="var(--fault-bed)" />
          <rect width="4" height="8" fill="var(--fault-on)" />
        </pattern>
        <pattern id="paint-idle" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-25)">
          <rect width="6" height="6" fill="var(--asphalt)" />
          <rect width="2" height="6" fill="var(--idle-on)" />
        </pattern>
        {/* Where nobody looked: pale, leaning forward, no event. */}
        <pattern id="paint-not-read" width="10" height="10" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
          <rect width="10" height="10" fill="var(--sheet)" />
          <rect width="5" height="10" fill="var(--rule)" />
        </pattern>
        <pattern id="paint-dash" width="10" height="10" patternUnits="userSpaceOnUse">
          <rect width="5" height="2" y="4" fill="var(--lane)" />
        </pattern>
        <pattern id="paint-dash-v" width="3" height="28" patternUnits="userSpaceOnUse">
          <rect width="3" height="14" fill="var(--lane)" opacity="0.6" />
        </pattern>
      </defs>
    </svg>
  );
}

export const FILL = {
  bare: 'none',
  queue: 'none',
  handshake: 'var(--shake-on)',
  fault: 'url(#paint-fault)',
  energy: 'var(--paint)',
  idle: 'url(#paint-idle)',
} as const;
