/**
 * Makes the service worker of the built application: src/offline/serviceWorker.ts with the list of what a device keeps.
 * Run after `next build`, with the build's own name in NEXT_PUBLIC_SURRIK_BUILD.
 */
import { readdirSync } from 'node:fs';
import { build } from 'esbuild';

const revision = process.env.NEXT_PUBLIC_SURRIK_BUILD ?? 'unbuilt';
// Named by their content, so they have no revision; the shell and what has a fixed name go by the build.
const code = readdirSync('.next/static', { recursive: true, withFileTypes: true })
  .filter((f) => f.isFile() && !f.name.endsWith('.map'))
  .map((f) => ({ url: `/_next/${`${f.parentPath}/${f.name}`.replace(/^\.next\//, '')}`, revision: null }));
const named = ['/offline', '/icon.svg', '/manifest.webmanifest'].map((url) => ({ url, revision }));

await build({
  entryPoints: ['src/offline/serviceWorker.ts'],
  outfile: '.next/service-worker.js',
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  define: { 'self.__FILES': JSON.stringify([...code, ...named]), 'process.env.NODE_ENV': '"production"' },
});
