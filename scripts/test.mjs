// Runs every part of the tests and counts them all. A part that ends badly without a failed test counts as one failure,
// so that nothing that crashed looks like a success.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';

mkdirSync('.cache', { recursive: true });
let passed = 0;
let failed = 0;
const bin = (name) => `node_modules/.bin/${name}`;

function run(title, command, args) {
  console.log(`\n== ${title}`);
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, FORCE_COLOR: '0' } });
  if (error) console.error(error.message);
  return status === 0;
}

/** A part that is one check: it holds or it does not. */
function check(title, command, args) {
  if (run(title, command, args)) passed++;
  else failed++;
}

/** A part with tests of its own, counted by its report. */
function suite(title, command, args, report, count) {
  rmSync(report, { force: true });
  const good = run(title, command, args);
  const found = existsSync(report) ? count(JSON.parse(readFileSync(report, 'utf8'))) : { passed: 0, failed: 0 };
  passed += found.passed;
  failed += found.failed;
  if ((!good && found.failed === 0) || found.passed + found.failed === 0) failed++;
}

check('Types', bin('astro'), ['check', '--minimumFailingSeverity', 'error']);
check('Linter', bin('biome'), ['check', '--error-on-warnings', '.']);
suite(
  'Unit tests',
  bin('vitest'),
  ['run', '--reporter=default', '--reporter=json', '--outputFile.json=.cache/unit.json'],
  '.cache/unit.json',
  (r) => ({
    passed: r.numPassedTests,
    failed: r.numFailedTests + r.testResults.filter((f) => f.status === 'failed' && f.assertionResults.length === 0).length,
  }),
);
check('Build', 'npm', ['run', '--silent', 'build']);
suite('End to end', bin('playwright'), ['test'], '.cache/e2e.json', (r) => ({
  passed: r.stats.expected + r.stats.flaky,
  failed: r.stats.unexpected,
}));

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
