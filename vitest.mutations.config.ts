/** The tests that a change in the sampled files should fail: those of the core, and of who may use what. */
import usual from './vitest.config';

const include = ['src/core/**/*.test.ts', 'tests/words/**/*.test.ts', 'src/server/http/access.test.ts'];

export default { ...usual, test: { ...usual.test, include } };
