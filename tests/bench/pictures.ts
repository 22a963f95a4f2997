/** Measurements of pictures: twenty photographs of twelve megapixels sent two at a time, while readers are answered. */
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import sharp from 'sharp';
import { signInCookie } from './sign-in';

const PORT = 4395;
const BASE = `http://127.0.0.1:${PORT}`;
const PHOTOGRAPHS = 20;
const now = (): number => Number(process.hrtime.bigint()) / 1e6;

/** A photograph as cameras make them: 4000 x 3000, soft shapes under grain, position and all in its EXIF. */
async function photograph(i: number): Promise<Buffer> {
  const shapes = Array.from({ length: 60 }, (_, k) => {
    const [x, y, r] = [((i * 7 + k * 137) * 61) % 4000, ((i * 13 + k * 211) * 47) % 3000, 60 + ((k * 89 + i * 31) % 420)];
    return `<circle cx="${x}" cy="${y}" r="${r}" fill="hsl(${(k * 47 + i * 29) % 360} 45% ${30 + ((k * 13) % 45)}%)" opacity=".7"/>`;
  });
  const drawn = Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="4000" height="3000"><rect width="4000" height="3000" fill="#8aa6a4"/>${shapes.join('')}</svg>`,
  );
  const grain = await sharp({
    create: { width: 2000, height: 1500, channels: 3, background: '#000', noise: { type: 'gaussian', mean: 128, sigma: 18 } },
  })
    .resize(4000, 3000)
    .png({ compressionLevel: 0 })
    .toBuffer();
  return sharp(drawn)
    .composite([{ input: grain, blend: 'soft-light' }])
    .withExif({ IFD3: { GPSLatitude: '43/1 10/1 0/1', GPSLatitudeRef: 'N' } })
    .jpeg({ quality: 90 })
    .toBuffer();
}

interface Lag {
  p50: number;
  p99: number;
  max: number;
}

export interface PictureFigures {
  seconds: number;
  /** megabytes more at most, of the whole process */
  memory: number;
  lag: Lag;
  /** of readers' pages meanwhile, ms */
  pageP95: number;
  megabytesSent: number;
}

export async function measurePictures(): Promise<PictureFigures> {
  const folder = mkdtempSync(path.join(tmpdir(), 'almanac-pictures-'));
  const server = spawn(
    'node',
    ['--import', pathToFileURL(path.resolve('tests/bench/lag-probe.mjs')).href, 'dist/cli/main.mjs', 'serve', '--demo'],
    {
      env: { ...process.env, NODE_OPTIONS: '', PORT: String(PORT), ALMANAC_DATA: folder, ALMANAC_NOW: '2027-03-17T09:00' },
      stdio: ['ignore', 'pipe', 'inherit'],
    },
  );
  try {
    await said(server, 'Serving');
    return await measure(server);
  } finally {
    const ended = new Promise((resolve) => server.on('exit', resolve));
    server.kill('SIGTERM');
    await ended;
    rmSync(folder, { recursive: true, force: true });
  }
}

function said(server: ChildProcess, wanted: string): Promise<string> {
  return new Promise((resolve, reject) => {
    const hear = (text: Buffer): void => {
      const line = String(text)
        .split('\n')
        .find((l) => l.includes(wanted));
      if (line === undefined) return;
      server.stdout?.off('data', hear);
      resolve(line);
    };
    server.stdout?.on('data', hear);
    server.once('exit', () => reject(new Error('the server ended; is it built?')));
  });
}

async function lagOf(server: ChildProcess): Promise<Lag> {
  const line = said(server, 'LAG');
  server.kill('SIGUSR2');
  return JSON.parse((await line).replace(/^.*LAG /, '')) as Lag;
}

/** Resident megabytes of a process. */
const memoryOf = (pid: number): number => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

async function measure(server: ChildProcess): Promise<PictureFigures> {
  const cookie = await signInCookie(BASE);
  const photographs: Buffer[] = [];
  for (let i = 0; i < PHOTOGRAPHS; i++) photographs.push(await photograph(i));
  // What runs once after a start is over by then.
  await new Promise((resolve) => setTimeout(resolve, 8000));
  const pid = server.pid ?? 0;
  const before = memoryOf(pid);
  let most = before;
  const watch = setInterval(() => {
    most = Math.max(most, memoryOf(pid));
  }, 50);
  await lagOf(server);
  let over = false;
  const pages: number[] = [];
  const reading = (async () => {
    while (!over) {
      const start = now();
      await (await fetch(`${BASE}/month/2027-03`)).text();
      pages.push(now() - start);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  })();
  const start = now();
  const queue = [...photographs];
  const send = async (): Promise<void> => {
    for (let one = queue.shift(); one; one = queue.shift()) {
      const form = new FormData();
      form.set('file', new File([new Uint8Array(one)], 'photograph.jpg', { type: 'image/jpeg' }));
      const response = await fetch(`${BASE}/api/v1/pictures`, { method: 'POST', body: form, headers: { cookie, origin: BASE } });
      if (!response.ok) throw new Error(`a picture was answered with ${response.status}: ${await response.text()}`);
      await response.text();
    }
  };
  await Promise.all([send(), send()]);
  const seconds = (now() - start) / 1000;
  const lag = await lagOf(server);
  over = true;
  await reading;
  clearInterval(watch);
  pages.sort((a, b) => a - b);
  const megabytesSent = photographs.reduce((sum, p) => sum + p.length, 0) / 1024 / 1024;
  return { seconds, memory: most - before, lag, pageP95: pages[Math.floor(pages.length * 0.95)] ?? 0, megabytesSent };
}
