/** Bundles the command line, its maintenance half and the workers, so that the shell needs no TypeScript runtime. */
import { build } from 'esbuild';

await build({
  entryPoints: {
    cli: 'src/cli/main.ts',
    maintain: 'src/cli/maintain.ts',
    worker: 'src/server/runs/main.ts',
    thread: 'src/server/runs/thread.ts',
  },
  outdir: '.build',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  external: ['knex', 'pg', 'pg-boss', 'pino', '@node-rs/argon2', '@react-pdf/renderer'],
  sourcemap: 'linked',
  logLevel: 'warning',
});
