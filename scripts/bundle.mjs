/** Bundles the command line and its maintenance half, so that the shell needs no TypeScript runtime. */
import { build } from 'esbuild';

await build({
  entryPoints: { cli: 'src/cli/main.ts', maintain: 'src/cli/maintain.ts' },
  outdir: '.build',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  external: ['knex', 'pg', '@node-rs/argon2'],
  sourcemap: 'linked',
  logLevel: 'warning',
});
