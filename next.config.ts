import { withSerwist } from '@serwist/turbopack';
import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: ['mysql2', '@node-rs/argon2'],
  turbopack: {
    root: import.meta.dirname,
    // 6 kB that a phone would carry for a question whose answer is no.
    resolveAlias: { 'next/dist/compiled/buffer': { browser: './client/photos/no-buffer.ts' } },
  },
  // The phone reaches the application under the host's own address on the local network.
  devIndicators: false,
};
export default withSerwist(config);
