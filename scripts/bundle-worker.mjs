// Bundles the thread that reads and expands for the server into one file.
import { build } from 'esbuild';

await build({
  entryPoints: ['src/server/worker/thread.ts'],
  outfile: 'dist/worker/thread.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});
