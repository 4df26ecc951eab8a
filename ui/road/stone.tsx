/** The mark: a milestone. */
export function Stone({ text = 'M', size = 16 }: { text?: string; size?: number }) {
  return (
    <svg width={size} height={size * 1.25} viewBox="0 0 16 20" aria-hidden="true" focusable="false">
      <path d="M0 19V8a8 8 0 0 1 16 0v11a1 1 0 0 1-1 1H1a1 1 0 0 1-1-1Z" fill="var(--stone)" />
      <text x="8" y="14" textAnchor="middle" fontSize="10" fontWeight="700" className="num" fill="#23292c">
        {text}
      </text>
    </svg>
  );
}
