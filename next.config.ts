import { withSerwist } from '@serwist/turbopack';
import type { NextConfig } from 'next';
import { bundleStall } from './server/commands/stall-bundle.mjs';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: ['mysql2', '@node-rs/argon2', 'pdfkit'],
  // What is longer comes to a route cut off, without a word. A sheet of 25 MB with what is said of it is the longest body that any route takes.
  experimental: { proxyClientMaxBodySize: '28mb' },
  turbopack: { root: import.meta.dirname },
  compiler: { runAfterProductionCompile: async ({ distDir }) => bundleStall(distDir) },
  // The phone reaches the application under the host's own address on the local network.
  devIndicators: false,
};

export default withSerwist(config);
