import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createSerwistRoute } from '@serwist/turbopack';

// Shells change with each build: their revision does too.
const revision = randomUUID();
/** What only browsers would fetch that are too old for a service worker. */
const { polyfillFiles }: { polyfillFiles: string[] } = JSON.parse(readFileSync('.next/build-manifest.json', 'utf8'));

export const { dynamic, dynamicParams, revalidate, generateStaticParams, GET } = createSerwistRoute({
  swSrc: 'client/service-worker.ts',
  useNativeEsbuild: true,
  globPatterns: ['.next/static/**/*.{js,css,woff2}', 'public/**/*'],
  globIgnores: polyfillFiles.map((file) => `.next/${file}`),
  maximumFileSizeToCacheInBytes: 5_000_000,
  additionalPrecacheEntries: [
    { url: '/stall', revision },
    { url: '/offline', revision },
  ],
});
