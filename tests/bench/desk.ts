/** Measurements of the Desk at 10,000 listings with 300,000 dates: the table, its search and views, and Proof of one listing. */
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fillSite } from './many';
import { signInCookie } from './sign-in';

const LISTINGS = 10_000;
const PORT = 4396;
const BASE = `http://127.0.0.1:${PORT}`;
const now = (): number => Number(process.hrtime.bigint()) / 1e6;
const quantile = (list: number[], q: number): number =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * q))] ?? 0;

async function serve(folder: string): Promise<ChildProcess> {
  const server = spawn('node', ['dist/cli/main.mjs', 'serve', '--demo'], {
    env: { ...process.env, PORT: String(PORT), ALMANAC_DATA: folder, ALMANAC_NOW: '2027-03-17T09:00' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout?.on('data', (text) => String(text).includes('Serving') && resolve());
    server.on('exit', () => reject(new Error('the server did not start; is it built?')));
  });
  return server;
}

const stop = (server: ChildProcess): Promise<unknown> => {
  const ended = new Promise((resolve) => server.on('exit', resolve));
  server.kill('SIGTERM');
  return ended;
};

export interface DeskFigures {
  dates: number;
  /** milliseconds at the 95th percentile */
  empty: number;
  pages: { name: string; p95: number; p50: number }[];
  validation: { p95: number; p50: number };
  emptyP50: number;
}

export async function measureDesk(): Promise<DeskFigures> {
  const folder = mkdtempSync(path.join(tmpdir(), 'almanac-desk-'));
  try {
    await stop(await serve(folder));
    const dates = await fillSite(folder, { listings: LISTINGS, dates: 30, published: (i) => i % 5 > 0 });
    const server = await serve(folder);
    try {
      return { dates, ...(await measure()) };
    } finally {
      await stop(server);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function measure(): Promise<Omit<DeskFigures, 'dates'>> {
  const cookie = await signInCookie(BASE);
  const get = async (address: string): Promise<number> => {
    const start = now();
    const response = await fetch(`${BASE}${address}`, { headers: { cookie } });
    await response.text();
    if (response.status !== 200) throw new Error(`${address} was answered with ${response.status}`);
    return now() - start;
  };
  // What runs once after a start is over by then.
  await new Promise((resolve) => setTimeout(resolve, 8000));
  const table = await (await fetch(`${BASE}/desk/listings?words=harbour`, { headers: { cookie } })).text();
  const id = /data-id="([0-9a-f-]{36})"/.exec(table)?.[1] ?? '';
  const venueId = /<option value="([0-9a-f-]{36})"[^>]*>Net Loft/.exec(table)?.[1] ?? '';
  const asked: [string, string][] = [
    ['the table', '/desk/listings'],
    ['by next date, page 40', '/desk/listings?sort=next&page=40'],
    ['searched with a slip', '/desk/listings?words=harbuor+chior'],
    [
      'a kept view: published, one venue, next month, four columns',
      `/desk/listings?stage=published&venue=${venueId}&next=30&sort=next&columns=next,venue,organizer,stage`,
    ],
    ['with open matters', '/desk/listings?having=problems&sort=title'],
  ];
  const times = new Map<string, number[]>([['empty', []], ['proof', []], ...asked.map(([name]): [string, number[]] => [name, []])]);
  const kept = await (await fetch(`${BASE}/api/v1/listings/${id}`, { headers: { cookie } })).json();
  const validation = async (): Promise<number> => {
    const start = now();
    const response = await fetch(`${BASE}/api/v1/proof`, {
      method: 'POST',
      body: JSON.stringify({ id, content: kept.content }),
      headers: { cookie, 'content-type': 'application/json', origin: BASE },
    });
    await response.text();
    if (response.status !== 200) throw new Error(`Proof was answered with ${response.status}`);
    return now() - start;
  };
  for (let round = -15; round < 60; round++) {
    const take = (name: string, ms: number): void => {
      if (round >= 0) times.get(name)?.push(ms);
    };
    take('empty', await get('/desk/empty'));
    for (const [name, address] of asked) take(name, await get(address));
    take('proof', await validation());
  }
  const of = (name: string): number[] => times.get(name) ?? [];
  return {
    empty: quantile(of('empty'), 0.95),
    emptyP50: quantile(of('empty'), 0.5),
    pages: asked.map(([name]) => ({ name, p95: quantile(of(name), 0.95), p50: quantile(of(name), 0.5) })),
    validation: { p95: quantile(of('proof'), 0.95), p50: quantile(of('proof'), 0.5) },
  };
}
