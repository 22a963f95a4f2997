// Runs every part of the tests and counts them all. A part that ends badly without a failed test counts as one failure,
// so that nothing that crashed looks like a success.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';

mkdirSync('.cache', { recursive: true });
let passed = 0;
let failed = 0;
/** What failed, by name: said again before the count, since a long output is seldom read from its top. */
const names = [];
const bin = (name) => `node_modules/.bin/${name}`;

function run(title, command, args) {
  console.log(`\n== ${title}`);
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, FORCE_COLOR: '0' } });
  if (error) console.error(error.message);
  return status === 0;
}

/** A part that is one check: it holds or it does not. What it says is printed when it is done, since several run beside each other. */
function check(title, command, args) {
  return new Promise((done) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, FORCE_COLOR: '0' } });
    const out = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => out.push(part));
    child.once('error', (error) => out.push(`${error.message}\n`));
    child.once('close', (status) => {
      console.log(`\n== ${title}\n${out.join('')}`);
      if (status === 0) passed++;
      else {
        failed++;
        names.push(title);
      }
      done();
    });
  });
}

/** A part with tests of its own, counted by its report. */
function suite(title, command, args, report, count) {
  rmSync(report, { force: true });
  const good = run(title, command, args);
  const none = { passed: 0, failed: [] };
  const found = existsSync(report) ? count(JSON.parse(readFileSync(report, 'utf8'))) : none;
  passed += found.passed;
  failed += found.failed.length;
  names.push(...found.failed);
  if ((!good && found.failed.length === 0) || found.passed + found.failed.length === 0) {
    failed++;
    names.push(title);
  }
}

/** Failed unit tests with their first line of why; a file that could not be loaded is one. */
const failedUnits = (report) =>
  report.testResults.flatMap((file) => {
    if (file.status === 'failed' && file.assertionResults.length === 0) return [`${file.name}: ${file.message}`];
    return file.assertionResults
      .filter((test) => test.status === 'failed')
      .map((test) => `${test.fullName}: ${test.failureMessages[0] ?? ''}`);
  });

const failedJourneys = (suites) =>
  suites.flatMap((one) => [
    ...failedJourneys(one.suites ?? []),
    ...(one.specs ?? []).filter((spec) => !spec.ok).map((spec) => `${one.title} › ${spec.title}`),
  ]);

// Each of these needs one processor for half a minute: together they take as long as the longest.
await Promise.all([
  check('Build', 'npm', ['run', '--silent', 'build']),
  check('Types', bin('astro'), ['check', '--minimumFailingSeverity', 'error']).then(() =>
    check('Linter', bin('biome'), ['check', '--error-on-warnings', '.']),
  ),
  check('Licences', 'node', ['scripts/licences.mjs', '--check']),
]);
suite(
  'Unit tests',
  bin('vitest'),
  ['run', '--reporter=default', '--reporter=json', '--outputFile.json=.cache/unit.json'],
  '.cache/unit.json',
  (r) => ({
    passed: r.numPassedTests,
    failed: failedUnits(r),
  }),
);
suite('End to end', bin('playwright'), ['test'], '.cache/e2e.json', (r) => ({
  passed: r.stats.expected + r.stats.flaky,
  failed: failedJourneys(r.suites),
}));

if (names.length) console.log(`\nFailed:\n${names.map((name) => `  ${name.split('\n').slice(0, 6).join('\n    ')}`).join('\n')}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
