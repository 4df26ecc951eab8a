import { withSerwist } from '@serwist/turbopack';
import { buildSync } from 'esbuild';
import type { NextConfig } from 'next';
import { PHASE_PRODUCTION_SERVER } from 'next/constants';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: ['mysql2', '@node-rs/argon2', 'pdfkit'],
  // What is longer comes to a route cut off, without a word. A sheet of 25 MB with what is said of it is the longest body that any route takes.
  experimental: { proxyClientMaxBodySize: '28mb' },
  turbopack: {
    root: import.meta.dirname,
    resolveAlias: {
      // 6 kB that a phone would carry for a question whose answer is no.
      'next/dist/compiled/buffer': { browser: './client/photos/no-buffer.ts' },
      // Turbopack keeps all of Zod's core for the third of it that is used: 10 kB more.
      '@/core/units/schema': { browser: './.data/schema.js' },
    },
  },
  // The phone reaches the application under the host's own address on the local network.
  devIndicators: false,
};

export default function forPhase(phase: string): Promise<NextConfig> | NextConfig {
  if (phase !== PHASE_PRODUCTION_SERVER)
    buildSync({ entryPoints: ['core/units/schema.ts'], bundle: true, format: 'esm', target: 'es2022', outfile: '.data/schema.js' });
  return withSerwist(config);
}
