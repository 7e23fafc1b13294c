import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['knex', 'pg', 'pg-boss', '@node-rs/argon2', '@react-pdf/renderer', 'pino', 'sharp'],
  turbopack: { root: import.meta.dirname },
  poweredByHeader: false,
  typedRoutes: false,
  // Types are a check of their own in `./surrik test`: once is enough.
  typescript: { ignoreBuildErrors: true },
  reactStrictMode: true,
  // A browser that has not yet seen the icon's link asks by this old name.
  rewrites: () => Promise.resolve([{ source: '/favicon.ico', destination: '/icon.svg' }]),
  headers: () =>
    Promise.resolve([
      {
        source: '/:path*',
        headers: [
          { key: 'x-content-type-options', value: 'nosniff' },
          { key: 'referrer-policy', value: 'same-origin' },
          { key: 'x-frame-options', value: 'DENY' },
          { key: 'permissions-policy', value: 'camera=(self), microphone=(), geolocation=()' },
          { key: 'cross-origin-opener-policy', value: 'same-origin' },
        ],
      },
    ]),
};

export default config;
