/** What the Stall shows until it is known whose it is: written into its page, and drawn first. */
export function Opening() {
  return (
    <p className="mt-3 text-ink-2" role="status">
      Opening what is kept on this phone …
    </p>
  );
}
