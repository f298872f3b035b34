import type { NextConfig } from 'next';

const config: NextConfig = {
  // Tests build beside a running demo, which holds its own folder locked.
  distDir: process.env.KEENFIT_DIST ?? '.next',
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['@node-rs/argon2', 'postgres', 'pino'],
  generateBuildId: () => process.env.KEENFIT_BUILD ?? `b${Date.now().toString(36)}`,
};
export default config;
