import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['@node-rs/argon2', 'pg', 'pino'],
  experimental: { authInterrupts: true },
};

export default config;
