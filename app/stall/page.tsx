import { readFileSync } from 'node:fs';
import type { Metadata } from 'next';
import { preloadModule } from 'react-dom';
import { Opening } from './opening';

export const metadata: Metadata = { title: 'Stall' };
// Written once at build time: opens from the service worker with no network at all.
export const dynamic = 'force-static';

/** What the build says of the Stall's own bundle. */
type Bundle = { script: string; withIt: string[] };

/**
 * The Stall's page: what it shows while it opens, and the bundle that takes it from there. It is entered and left whole,
 * so that none of what goes from page to page within the application need be on the phone before the first tap.
 */
export default function StallPage() {
  const { script, withIt }: Bundle = JSON.parse(readFileSync('.next/stall-bundle.json', 'utf8'));
  for (const file of withIt) preloadModule(file, { as: 'script' });
  return (
    <>
      {/* No id: the forms name their fields by theirs. */}
      <div data-stall className="contents">
        <main className="mx-auto max-w-md p-6">
          <h1 className="text-2xl">Stall</h1>
          <Opening />
          <div role="alert" hidden>
            <p className="mt-3">
              The Stall is not on this device yet and could not be fetched: there is no network, or this browser is too old for it. What was recorded here
              stands.
            </p>
            <a className="plate plate-next mt-5 !min-h-[44px]" href="/stall">
              Try again
            </a>
          </div>
        </main>
      </div>
      <script src="/stall.js" />
      <script type="module" src={script} />
    </>
  );
}
