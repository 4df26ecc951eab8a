'use client';

/** A page that could not be made: says so, loses nothing, and offers to try again. */
export function PageError({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <div className="mx-auto max-w-md p-6" role="alert">
      <h1 className="text-2xl">This page could not be made</h1>
      <p className="mt-3">
        The server did not answer as it should. Nothing that was recorded is lost: it is in the record, or kept on the phone until it can be sent.
      </p>
      {error.digest ? <p className="num mt-2 text-sm text-ink-2">Reference {error.digest}</p> : null}
      <div className="mt-5 flex gap-3">
        <button type="button" className="plate plate-next" onClick={reset}>
          Try again
        </button>
        <a className="plate" href="/stall">
          Go to the Stall
        </a>
      </div>
    </div>
  );
}
