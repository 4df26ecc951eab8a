/** A milestone: a stone with a round top and a number or name. `dark`: for a light ground. */
export function Milestone({ text, small = false, dark = false }: { text: string; small?: boolean; dark?: boolean }) {
  const long = text.length > 3;
  return (
    <svg width={small ? 36 : 44} height={small ? 42 : 52} viewBox="0 0 44 52" aria-hidden="true" focusable="false" className="shrink-0">
      <path
        d="M0 49V22a22 22 0 0 1 44 0v27a3 3 0 0 1-3 3H3a3 3 0 0 1-3-3Z"
        fill={dark ? 'var(--asphalt)' : 'var(--stone)'}
        stroke="var(--asphalt)"
        strokeWidth="1"
      />
      <text x="22" y="34" textAnchor="middle" fontSize={long ? 11 : 21} fontWeight="700" className="num" fill={dark ? 'var(--line)' : '#23292c'}>
        {long ? text.slice(0, 6) : text}
      </text>
    </svg>
  );
}
