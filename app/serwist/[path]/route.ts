import { randomUUID } from 'node:crypto';
import { createSerwistRoute } from '@serwist/turbopack';

// Shells change with each build: their revision does too.
const revision = randomUUID();

export const { dynamic, dynamicParams, revalidate, generateStaticParams, GET } = createSerwistRoute({
  swSrc: 'client/service-worker.ts',
  useNativeEsbuild: true,
  globPatterns: ['.next/static/**/*.{js,css,woff2}', 'public/**/*'],
  maximumFileSizeToCacheInBytes: 5_000_000,
  additionalPrecacheEntries: [
    { url: '/stall', revision },
    { url: '/offline', revision },
  ],
});
