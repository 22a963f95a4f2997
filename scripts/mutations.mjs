// Changes single operators, conditions and values of the core and sees whether a test fails: `npm run mutations`. A sample of lines is
// taken by a seed (SEED=7 for another), since all of them would take hours. Prints the score last: killed ÷ all that a test reaches or should.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { random, seedOf } from '../tests/support/generate.ts';

const GOAL = 85;
const MINUTES = 20;
/** Lines in one place of the sample, and how many places. */
const WINDOW = 8;
const PLACES = 30;
const FOLDERS = ['src/core/recurrence', 'src/core/phrase', 'src/core/phrase/read', 'src/core/sheet'];
const FILES = ['src/server/http/access.ts'];
const FOLDER = '.cache/mutations';
const REPORT = path.join(FOLDER, 'report.json');

const seed = seedOf();
const next = random(seed);

const sources = [
  ...FOLDERS.flatMap((folder) =>
    readdirSync(folder)
      .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
      .map((name) => path.join(folder, name)),
  ),
  ...FILES,
];

/** Every place of every file, of which some are drawn: a long file has more of them than a short one. */
const all = sources.flatMap((file) => {
  const lines = readFileSync(file, 'utf8').split('\n').length;
  return Array.from({ length: Math.floor(lines / WINDOW) }, (_, i) => `${file}:${i * WINDOW + 1}-${(i + 1) * WINDOW}`);
});
const mutate = Array.from({ length: Math.min(PLACES, all.length) }, () => all.splice(Math.floor(next() * all.length), 1)[0]);

mkdirSync(FOLDER, { recursive: true });
rmSync(REPORT, { force: true });
const config = path.join(FOLDER, 'stryker.json');
writeFileSync(
  config,
  JSON.stringify({
    testRunner: 'vitest',
    plugins: ['@stryker-mutator/vitest-runner'],
    vitest: { configFile: 'vitest.mutations.config.ts', related: false },
    coverageAnalysis: 'perTest',
    ignoreStatic: true,
    concurrency: 2,
    timeoutMS: 30_000,
    timeoutFactor: 3,
    reporters: ['json', 'clear-text', 'progress-append-only'],
    clearTextReporter: { logTests: false, allowColor: false, reportTests: false, reportScoreTable: false },
    jsonReporter: { fileName: REPORT },
    tempDirName: path.join(FOLDER, 'sandbox'),
    ignorePatterns: ['/dist', '/data', '/.cache', '/docs', '/test-results', '/public', '/demo/pictures'],
    mutate,
  }),
);
console.log(`${mutate.length} places of ${sources.length} files, seed ${seed}`);
const { status, signal, error } = spawnSync('node_modules/.bin/stryker', ['run', config], {
  stdio: 'inherit',
  timeout: MINUTES * 60_000,
  env: { ...process.env, ONE_IN: process.env.ONE_IN ?? '12' },
});
if (error?.code === 'ETIMEDOUT' || signal) {
  console.error(`Not done within ${MINUTES} minutes: no score.`);
  process.exit(1);
}
if (status !== 0 || !existsSync(REPORT)) {
  console.error('The run failed: no score.');
  process.exit(1);
}
const counts = {};
for (const { mutants } of Object.values(JSON.parse(readFileSync(REPORT, 'utf8')).files))
  for (const mutant of mutants) counts[mutant.status] = (counts[mutant.status] ?? 0) + 1;
const { Killed = 0, Timeout = 0, Survived = 0, NoCoverage = 0 } = counts;
const found = Killed + Timeout;
const tried = found + Survived + NoCoverage;
const score = tried ? (100 * found) / tried : 0;
console.log(
  `${found} of ${tried} changes made a test fail: ${score.toFixed(1)} % (goal ${GOAL} %); ${Survived} survived, ${NoCoverage} in lines that no test reaches`,
);
process.exit(score >= GOAL ? 0 : 1);
