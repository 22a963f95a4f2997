/** The tests that a change in the sampled files should fail: those of the core, and of who may use what. */
import { mergeConfig } from 'vitest/config';
import usual from './vitest.config';

const merged = mergeConfig(usual, {});
merged.test = { ...merged.test, include: ['src/core/**/*.test.ts', 'tests/words/**/*.test.ts', 'src/server/http/access.test.ts'] };

export default merged;
