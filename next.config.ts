import type { NextConfig } from 'next';

/** The same on every answer. The content policy is set by src/proxy.ts, since it has a nonce for each. */
const HEADERS = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Resource-Policy', value: 'same-origin' },
  { key: 'Permissions-Policy', value: 'camera=(), microphone=(), geolocation=()' },
];

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['@node-rs/argon2', 'pg', 'pino'],
  // The largest body that src/server/front lets through: a file of people.
  experimental: { authInterrupts: true, proxyClientMaxBodySize: '32mb' },
  headers: async () => [{ source: '/:path*', headers: HEADERS }],
};

export default config;
