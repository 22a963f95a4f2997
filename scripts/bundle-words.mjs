// Bundles the part of the command line that only computes (dates, read) into one file that needs nothing beside it.
import { build } from 'esbuild';

await build({
  entryPoints: ['src/cli/words.ts'],
  outfile: 'dist/cli/words.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  minifySyntax: true,
  logLevel: 'warning',
});
