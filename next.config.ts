import type { NextConfig } from 'next';

const config: NextConfig = {
  // Tests build beside a running demo, which holds its own folder locked.
  distDir: process.env.KEENFIT_DIST ?? '.next',
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['@node-rs/argon2', 'postgres', 'pino', '@react-pdf/renderer', 'fontkit'],
  turbopack: {
    // Messages are compiled while building, and formatted by the part of the library that reads compiled ones.
    rules: { '*.messages.json': { loaders: ['./scripts/lib/messagesLoader.cjs'], as: '*.json' } },
    resolveAlias: { 'use-intl/format-message': 'use-intl/format-message/format-only' },
  },
  generateBuildId: () => process.env.KEENFIT_BUILD ?? `b${Date.now().toString(36)}`,
};
export default config;
