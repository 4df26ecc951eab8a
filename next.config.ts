import { withSerwist } from '@serwist/turbopack';
import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: ['mysql2', '@node-rs/argon2'],
  turbopack: { root: import.meta.dirname },
  // The phone reaches the application under the host's own address on the local network.
  devIndicators: false,
};
export default withSerwist(config);
