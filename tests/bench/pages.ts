/** Readers' pages of a site with many dates: what each view takes, and how many readers get how many. */
import type { ChildProcess } from 'node:child_process';
import http from 'node:http';
import path from 'node:path';
import autocannon from 'autocannon';
import { dayOf, isoDay, isoMonth, monthNumberOf } from '@/core/day/day';
import { viewPath } from '@/core/views/views';
import { emptyContent } from '@/core/listing/fields';
import { SIGN_INS } from '../../demo/people';
import { type Served, serve } from '../support/served';

const TODAY = dayOf(2027, 3, 17);
const now = (): number => performance.now();
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

/** Where figures go. */
export interface Output {
  report: (name: string, value: number, op: '>=' | '<', goal: number) => void;
  say: (line: string) => void;
}

/** Serves a folder with a probe of its event loop, once it has all dates at hand: pages before that ask the database. */
async function served(folder: string, measured: (site: Served) => Promise<void>): Promise<void> {
  const site = await serve({ data: folder, node: ['--import', path.resolve('tests/bench/lag-probe.mjs')] });
  try {
    await untilFound(site.url);
    await measured(site);
  } finally {
    await site.stop();
  }
}

const agent = new http.Agent({ keepAlive: true, maxSockets: 1 });

function get(
  url: string,
  headers: Record<string, string> = {},
): Promise<{ ms: number; status: number; etag: string | undefined; size: number }> {
  return new Promise((resolve, reject) => {
    const start = now();
    http
      .get(url, { agent, headers }, (response) => {
        let size = 0;
        response.on('data', (part: Buffer) => {
          size += part.length;
        });
        response.on('end', () => resolve({ ms: now() - start, status: response.statusCode ?? 0, etag: response.headers.etag, size }));
      })
      .on('error', reject);
  });
}

/** Waits until the server has all dates at hand: pages before that ask the database. */
async function untilFound(base: string): Promise<void> {
  for (let i = 0; i < 600; i++) {
    const found = /^almanac_finder_ready (\d)/m.exec(await (await fetch(`${base}/metrics`)).text())?.[1];
    if (found === '1') return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error('the finder was not ready within a minute');
}

/** Views of a site with many dates, made anew and kept, against an empty page. */
export const measurePages = (folder: string, output: Output): Promise<void> => served(folder, ({ url }) => views(url, output));

async function views(base: string, { report, say }: Output): Promise<void> {
  const month = isoMonth(monthNumberOf(TODAY) + 3);
  const day = isoDay(TODAY + 100);
  const asked: [string, string][] = [
    ['month', `/month/${month}?`],
    ['list', `/list/${day}?`],
    ['list of one kind', `/list/${day}?kind=music-dance&`],
    ['map', `/map/${day}?`],
    ['day', `/day/${day}?`],
    ['week', `${viewPath('week', TODAY + 100, 0)}?`],
    ['by place', `/places/${day}?`],
    ['year', `/year/${day.slice(0, 4)}?`],
    ['words', `/list/${day}?words=harbour+choir&`],
    ['words with slips', `/list/${day}?words=harbor+chior&`],
  ];
  const first = await get(`${base}/month/${month}`);
  const times = new Map<string, { fresh: number[]; kept: number[] }>(asked.map(([name]) => [name, { fresh: [], kept: [] }]));
  const empty: number[] = [];
  const same: number[] = [];
  // In turn, so that a slow moment of the machine meets all of them; the first rounds let the engine compile.
  for (let i = -30; i < 80; i++) {
    const keep = i >= 0;
    const none = await get(`${base}/empty`);
    if (keep) empty.push(none.ms);
    for (const [name, address] of asked) {
      // An address that nobody asked for yet: the page is made.
      const fresh = await get(`${base}${address}fresh=${i}`);
      if (fresh.status !== 200) throw new Error(`${address} was answered with ${fresh.status}`);
      const again = await get(`${base}${address}fresh=${i}`);
      if (keep) times.get(name)?.fresh.push(fresh.ms);
      if (keep) times.get(name)?.kept.push(again.ms);
    }
    const unchanged = await get(`${base}/month/${month}`, { 'if-none-match': first.etag ?? '' });
    if (unchanged.status !== 304) throw new Error(`the good copy was answered with ${unchanged.status}`);
    if (keep) same.push(unchanged.ms);
  }
  say(`an empty page takes ${median(empty).toFixed(2)} ms, the month page has ${(first.size / 1024).toFixed(0)} kB`);
  for (const [name, { fresh, kept }] of times) {
    // A year looks at every date of it.
    report(`${name}, made anew, p50 against an empty page`, median(fresh) / median(empty), '<', name === 'year' ? 10 : 8);
    report(`${name}, kept, p50 against an empty page`, median(kept) / median(empty), '<', 1.6);
  }
  report('month, the reader’s copy still good (304), p50 against an empty page', median(same) / median(empty), '<', 1.5);
}

/** A day of readers and editors: what a reader waits on average while now and then something is published. */
export const measureTrace = (folder: string, output: Output): Promise<void> => served(folder, ({ url }) => trace(url, output));

/** 5 reads a second with 20 publishings an hour are so many reads to one publishing. */
const READS_A_PUBLISHING = 900;
/** Pages that readers ask for: the first ones often, the last ones seldom. */
const ASKED = 40;

async function trace(base: string, { report, say }: Output): Promise<void> {
  const publish = await signedIn(base);
  const views = ['month', 'list', 'week', 'day', 'map'];
  const pages = Array.from({ length: ASKED }, (_, i) => {
    const day = TODAY + 60 + Math.floor(i / views.length) * 7;
    const view = views[i % views.length] as string;
    if (view === 'week') return viewPath('week', day, 0);
    return view === 'month' ? `/month/${isoMonth(monthNumberOf(day))}` : `/${view}/${isoDay(day)}`;
  });
  const headers = { 'accept-encoding': 'gzip' };
  const reads: number[] = [];
  const empty: number[] = [];
  let seed = 20270317;
  const random = (): number => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return seed / 2147483648;
  };
  for (let i = 0; i < READS_A_PUBLISHING * 2; i++) {
    if (i % READS_A_PUBLISHING === READS_A_PUBLISHING / 2) await publish(`Trace ${i}`);
    const address = pages[Math.floor(ASKED * random() ** 2)] as string;
    const page = await get(base + address, headers);
    if (page.status !== 200) throw new Error(`${address} was answered with ${page.status}`);
    reads.push(page.ms);
    if (i % 4 === 0) empty.push((await get(`${base}/empty`, headers)).ms);
  }
  const mean = (list: number[]): number => list.reduce((sum, ms) => sum + ms, 0) / list.length;
  say(`${reads.length} reads with 2 publishings: ${mean(reads).toFixed(2)} ms a read, an empty page ${mean(empty).toFixed(2)} ms`);
  report('reads with a publishing for every 900 of them, on average, against an empty page', mean(reads) / mean(empty), '<', 2.5);
}

/** Signs an editor in; what comes back publishes a listing of a title. */
async function signedIn(base: string): Promise<(title: string) => Promise<void>> {
  const { email, password } = SIGN_INS[0];
  const form = new URLSearchParams({ email, password });
  const answer = await fetch(`${base}/desk/sign-in`, { method: 'POST', body: form, redirect: 'manual', headers: { origin: base } });
  const cookie = answer.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ');
  const send = async (address: string, body: unknown): Promise<{ id: string; revision: number }> => {
    const headers = { cookie, origin: base, 'content-type': 'application/json' };
    const response = await fetch(base + address, { method: 'POST', headers, body: JSON.stringify(body) });
    if (!response.ok) throw new Error(`${address} was answered with ${response.status}: ${(await response.text()).slice(0, 200)}`);
    return (await response.json()) as { id: string; revision: number };
  };
  return async (title) => {
    const start = { start: `${isoDay(TODAY + 70)}T19:00`, length: { days: 0, minute: 1260 }, rule: null, limit: { kind: 'open' } };
    const recurrence = { format: 3, zone: 'America/Halifax', parts: [start], exdates: [], breaks: [] };
    const { id, revision } = await send('/api/v1/listings', { content: { ...emptyContent(), title, recurrence } });
    await send(`/api/v1/listings/${id}/publish`, { revision });
  };
}

/** Many readers at once, against an empty page of the same server. */
export const measureLoad = (folder: string, output: Output): Promise<void> =>
  served(folder, ({ url, process: server }) => load(url, server, output));

async function load(base: string, server: ChildProcess, { report, say }: Output): Promise<void> {
  const month = `${base}/month/${isoMonth(monthNumberOf(TODAY) + 3)}`;
  let fresh = 0;
  const freshAddress = (request: autocannon.Request): autocannon.Request => ({ ...request, path: `/month/2027-06?load=${fresh++}` });
  for (const connections of [20, 100]) {
    const against = { url: base, connections, duration: 6 };
    const run = async (options: Partial<autocannon.Options>) => {
      const result = await autocannon({ ...against, ...options });
      if (result.errors || result.non2xx) throw new Error(`${result.errors} errors, ${result.non2xx} answers that were none`);
      return result;
    };
    const empty = await run({ url: `${base}/empty` });
    const kept = await run({ url: month });
    const made = await run({ requests: [{ setupRequest: freshAddress }] });
    say(
      `${connections} connections: an empty page ${empty.requests.mean.toFixed(0)} times a second, a kept month ${kept.requests.mean.toFixed(0)}, one made anew ${made.requests.mean.toFixed(0)}`,
    );
    report(`kept pages a second at ${connections} connections, against an empty page`, kept.requests.mean / empty.requests.mean, '>=', 0.5);
    report(
      `pages made anew a second at ${connections} connections, against an empty page`,
      made.requests.mean / empty.requests.mean,
      '>=',
      0.12,
    );
    report(`kept pages at ${connections} connections, p99 against p50`, kept.latency.p99 / Math.max(1, kept.latency.p50), '<', 10);
  }
  const lags = lagsOf(server);
  server.kill('SIGUSR2');
  await lags();
  const feed = await get(`${base}/feed.ics?kind=`);
  server.kill('SIGUSR2');
  const lag = await lags();
  const again: number[] = [];
  for (let i = 0; i < 20; i++) again.push((await get(`${base}/feed.ics?kind=`)).ms);
  say(`the whole feed has ${(feed.size / 1024 / 1024).toFixed(1)} MB and is made in ${feed.ms.toFixed(0)} ms`);
  report('the event loop’s longest delay while the whole feed is made, in ms', lag.max, '<', 50);
}

/** What the probe says of the event loop, each time it is asked. */
function lagsOf(server: ChildProcess): () => Promise<{ max: number }> {
  const lines: string[] = [];
  server.stdout?.on('data', (text: Buffer) => lines.push(...(String(text).match(/LAG \{.*\}/g) ?? [])));
  return async () => {
    while (!lines.length) await new Promise((done) => setTimeout(done, 20));
    return JSON.parse((lines.shift() ?? '').slice(4)) as { max: number };
  };
}
