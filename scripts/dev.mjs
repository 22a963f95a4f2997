// Serves the site from its sources with the demo's data, and loads a page again when a file changes.
//   npm run dev            on port 4331, or PORT
//   npm run dev -- --fresh with the demo's data made anew
// The data is made once by a built site, since filling it needs what the command line bundles.
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, rmSync } from 'node:fs';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '..');
process.chdir(root);
const data = path.resolve(process.env.ALMANAC_DATA ?? 'data/dev');
const port = process.env.PORT ?? '4331';
const bin = (name) => path.join('node_modules/.bin', name);

/** Fills the folder: serves it once, until it says that it serves. */
function fill() {
  return new Promise((resolve, reject) => {
    const server = spawn('node', ['dist/cli/main.mjs', 'serve', '--demo', '--fresh'], {
      env: { ...process.env, PORT: '0', ALMANAC_DATA: data },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    let served = false;
    server.stdout.on('data', (part) => {
      process.stdout.write(part);
      if (!served && String(part).includes('Serving http')) {
        served = true;
        server.kill('SIGTERM');
      }
    });
    server.on('exit', () => (served ? resolve() : reject(new Error('The demo could not be made.'))));
  });
}

if (process.argv.includes('--fresh')) rmSync(data, { recursive: true, force: true });
if (!existsSync('node_modules')) execFileSync('npm', ['ci', '--no-audit', '--no-fund'], { stdio: 'inherit' });
if (!existsSync('dist/built') || !existsSync('dist/worker/thread.mjs')) {
  console.log('Building once …');
  execFileSync('npm', ['run', '--silent', 'build'], { stdio: ['ignore', 'ignore', 'inherit'] });
}
// The thread that computes is bundled; its sources are read anew at each start.
execFileSync('node', ['scripts/bundle-worker.mjs'], { stdio: 'inherit' });
if (!existsSync(path.join(data, 'db'))) await fill();
rmSync(path.join(data, 'almanac.sock'), { force: true });
const dev = spawn(bin('astro'), ['dev', '--port', port, '--host', '127.0.0.1'], {
  stdio: 'inherit',
  env: {
    ...process.env,
    ALMANAC_ROOT: root,
    ALMANAC_DATA: data,
    ALMANAC_DEMO: '1',
    ALMANAC_WORKER: path.join(root, 'dist/worker/thread.mjs'),
    ALMANAC_LISTENING: `http://127.0.0.1:${port}`,
    ASTRO_TELEMETRY_DISABLED: '1',
    ASTRO_DISABLE_UPDATE_CHECK: 'true',
  },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => dev.kill(signal));
dev.on('exit', (code) => process.exit(code ?? 0));
