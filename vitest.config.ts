import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';
import { compileWords } from './scripts/words.mjs';

compileWords();

// One seed for all files, which run in threads of their own; it is printed, so that a failure can be repeated.
if (process.env.SEED === 'random') {
  process.env.SEED = String(Date.now() % 1_000_000_000);
  console.log(`SEED=${process.env.SEED}`);
}

export default defineConfig({
  resolve: {
    alias: {
      '@': fileURLToPath(new URL('./src', import.meta.url)),
      '#demo': fileURLToPath(new URL('./demo', import.meta.url)),
    },
  },
  test: {
    include: ['src/**/*.test.{ts,tsx}', 'demo/**/*.test.ts', 'tests/words/**/*.test.ts'],
    pool: 'threads',
    isolate: false,
    // Database tests share one database a worker, so files of a worker run one after the other.
    maxWorkers: 2,
    testTimeout: 180_000,
    hookTimeout: 180_000,
  },
});
