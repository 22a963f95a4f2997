/** Serves the site until it is told to stop. */
import { existsSync, rmSync } from 'node:fs';
import http, { type IncomingMessage, type ServerResponse } from 'node:http';
import net from 'node:net';
import path from 'node:path';
import sirv from 'sirv';
import { forwardedBy, listeningAddress, proxyHops } from '@/core/text/origin';
import { placedIn, readSitePaths, type SitePaths } from '@/core/text/site-path';
import { CliError } from './problem';
import { askSocket, dataFolder, isRunning, loadHandler, prepareFolder, ROOT, type SignIn, startOperator } from './server-process';

const MAX_BODY = 22 * 1024 * 1024;
/** What proxies add, declared or not: whoever asks through one is not on this machine. */
const FORWARDED = ['forwarded', 'x-forwarded-for', 'x-forwarded-host', 'x-forwarded-proto', 'x-real-ip', 'via'];
/** What pages and endpoints are asked by; each says which of them it answers (`server/http/access.ts`). */
const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'];

export async function serve({ demo, fresh }: { demo: boolean; fresh: boolean }): Promise<void> {
  // What is built is served as it is meant to run: libraries leave their checks for developers out.
  process.env.NODE_ENV ??= 'production';
  const host = process.env.HOST ?? '127.0.0.1';
  const port = Number(process.env.PORT ?? 4321);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new CliError(`PORT is ${process.env.PORT}; it takes a number up to 65535.`);
  const hops = proxyHops(process.env);
  if (hops === undefined)
    throw new CliError(
      `ALMANAC_BEHIND_PROXY is ${process.env.ALMANAC_BEHIND_PROXY}; it takes how many proxies of yours stand before the site, 0 to 9.`,
    );
  const paths = readSitePaths(process.env.ALMANAC_PATH ?? '');
  if (!paths)
    throw new CliError(
      `ALMANAC_PATH is ${process.env.ALMANAC_PATH}; it takes a path such as /events, and behind commas those that the site had before.`,
    );
  if (demo) process.env.ALMANAC_DEMO = '1';
  const folder = dataFolder();
  prepareFolder(folder);
  if (await isRunning(folder))
    throw new CliError(`The data folder ${folder} is in use by another server. Stop that one, or set ALMANAC_DATA to another folder.`);
  if (fresh) clear(folder, demo);
  const handler = await loadHandler();
  const files = sirv(path.join(ROOT, 'dist/client'), {
    etag: true,
    setHeaders: (res, name) => {
      if (name.startsWith('/_astro/')) res.setHeader('cache-control', 'public, max-age=31536000, immutable');
    },
  });
  let ready = false;
  const server = http.createServer((req, res) => {
    if (!ready) {
      // The port is taken at once, so that a second start is told; pages come when the data is there.
      res.writeHead(503, { 'content-type': 'text/plain', 'retry-after': '2' }).end('The site is starting.');
      return;
    }
    const passedOn = FORWARDED.some((name) => req.headers[name] !== undefined);
    if (!bounded(req, res, hops) || !placed(req, res, paths)) return;
    const forwarded = forwardedBy(hops, String(req.headers['x-forwarded-for'] ?? ''));
    const address = forwarded ?? req.socket.remoteAddress ?? '';
    files(req, res, () => handler(req, res, undefined, { address, passedOn }));
  });
  server.requestTimeout = 60_000;
  await listen(server, host, port);
  const bound = server.address();
  const shown = typeof bound === 'object' && bound ? bound.port : port;
  process.env.ALMANAC_LISTENING = listeningAddress(host, shown);
  console.log('Opening the data folder …');
  let operator: Awaited<ReturnType<typeof startOperator>>;
  try {
    operator = await startOperator(handler, folder);
  } catch (error) {
    server.close();
    throw error;
  }
  if (demo && operator.empty) {
    console.log('Filling it with invented events: listings, dates, pictures …');
    await askSocket(path.join(folder, 'almanac.sock'), 'seed');
  }
  ready = true;
  await askSocket(path.join(folder, 'almanac.sock'), 'warm');
  // Before anybody is told that it serves: whoever waits for that line may stop it at once.
  stopCleanly(server, operator.stop);
  const more = demo ? signInWords(operator.signIns) : operator.setUp ? '' : await setupWords(path.join(folder, 'almanac.sock'));
  console.log(`\nServing http://${host}:${shown}${paths.now}${more && `\n${more}`}`);
}

/** Where somebody who sees this console sets the site up. */
export async function setupWords(socket: string): Promise<string> {
  return `
Nobody has set this site up yet. Open this address within an hour, in the browser you will work in:

  ${await askSocket(socket, 'setup-address')}
`;
}

/** Who can sign in to a demo. */
const signInWords = (signIns: readonly SignIn[]): string =>
  [
    'Sign in to the Desk at /desk with',
    ...signIns.map(({ email, password, role }) => `  ${email}   ${password}   ${role}`),
    'Ctrl-C stops it.',
  ].join('\n');

/** Removes the site's own files from its folder, nothing else that may lie there. */
function clear(folder: string, demo: boolean): void {
  if (!demo) throw new CliError('--fresh empties the data folder; it is for a demo (--demo) only.');
  for (const name of ['db', 'secret', 'almanac.sock']) {
    if (existsSync(path.join(folder, name))) rmSync(path.join(folder, name), { recursive: true, force: true });
  }
}

/** What the handler must be able to trust: no forwarded addresses unless a proxy is declared, and a length for each body. */
function bounded(req: IncomingMessage, res: ServerResponse, hops: number): boolean {
  if (!hops) {
    for (const name of Object.keys(req.headers)) if (name.startsWith('x-forwarded') || name === 'forwarded') delete req.headers[name];
  }
  const refuse = (status: number, title: string, more: Record<string, string> = {}): false => {
    res.writeHead(status, { 'content-type': 'application/problem+json', connection: 'close', ...more });
    res.end(JSON.stringify({ type: 'about:blank', title, status }));
    return false;
  };
  // TRACE, and whatever else there is, never come as far as a page.
  if (!METHODS.includes(req.method ?? '')) return refuse(405, 'This site does not answer that method.', { allow: 'GET, HEAD' });
  if (req.headers['transfer-encoding']) return refuse(411, 'Send the length of the body.');
  if (Number(req.headers['content-length'] ?? 0) > MAX_BODY) return refuse(413, 'That is larger than 20 MB; send a smaller picture.');
  return true;
}

/** What watches over a process asks it by these, wherever the site lies. */
const OF_THE_PROCESS = /^\/(healthz|readyz|metrics)(\?|$)/;

/** Makes an address of the host one of the site's, as its pages know it; what lay elsewhere before is led on, and what is not the site's is said. */
function placed(req: IncomingMessage, res: ServerResponse, paths: SitePaths): boolean {
  const asked = req.url ?? '/';
  // A proxy that takes the path away says so, as many do; nobody else is believed (see bounded).
  const taken = readSitePaths(String(req.headers['x-forwarded-prefix'] ?? ''))?.now;
  if (OF_THE_PROCESS.test(asked) || (paths.now && taken === paths.now)) return true;
  const there = placedIn(paths, asked);
  if (there.kind === 'own') {
    req.url = there.address;
    return true;
  }
  if (there.kind === 'moved') {
    const permanent = req.method === 'GET' || req.method === 'HEAD' ? 301 : 308;
    res.writeHead(permanent, { location: paths.now + there.address, 'cache-control': 'no-store' }).end();
    return false;
  }
  res.writeHead(404, { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' });
  res.end(
    `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Not here</title><p>There is nothing here. The calendar is at <a href="${paths.now}/">${paths.now}/</a>.</p></html>`,
  );
  return false;
}

function listen(server: http.Server, host: string, port: number): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      const sentences: Record<string, string> = {
        EADDRINUSE: `Port ${port} is taken by another program. Stop that one, or choose another: PORT=${port + 1} ./bin/demo`,
        EACCES: `Port ${port} may not be used by this account; choose one above 1023.`,
        EADDRNOTAVAIL: `This machine has no address ${host}; set HOST to one of its own.`,
      };
      reject(new CliError(sentences[error.code ?? ''] ?? `The port could not be opened: ${error.code}.`));
    });
    server.listen(port, host, resolve);
  });
}

/** The queue of a port is as long as the system lets it be: more turns than this nobody waits for it. */
const MOST_TURNS = 1000;
/** What is under way has so long to be answered, in ms. */
const FINISH = 30_000;

/** What has come to the port by now is taken before it is closed: the system would end whatever still stands in its queue. */
async function untilTaken(server: http.Server): Promise<void> {
  let taken = 0;
  const count = (): void => void taken++;
  server.on('connection', count);
  for (let before = -1, turns = 0; before !== taken && turns < MOST_TURNS; turns++) {
    before = taken;
    // A turn of the loop takes one connection, or more.
    for (let turn = 0; turn < 3; turn++) await new Promise<void>((done) => setTimeout(done));
  }
  server.off('connection', count);
}

/** Nothing new is taken; what is under way is answered, then the jobs come to a safe point and the database is closed. A second signal ends at once. */
function stopCleanly(server: http.Server, stop: () => Promise<void>): void {
  let stopping = false;
  const end = async (): Promise<void> => {
    if (stopping) process.exit(1);
    stopping = true;
    console.log('\nStopping …');
    await untilTaken(server);
    // Nothing new is taken. The HTTP server's own way would end connections whose request has arrived and was not read yet.
    const answered = new Promise<void>((done) => net.Server.prototype.close.call(server, () => done()));
    // A connection that is kept open for more has nothing under way once it was answered; what has arrived is read before anybody looks.
    const sweep = setInterval(() => setImmediate(() => server.closeIdleConnections()), 100);
    await Promise.race([answered, new Promise((done) => setTimeout(done, FINISH).unref())]);
    clearInterval(sweep);
    server.closeAllConnections();
    await stop().then(
      () => process.exit(0),
      () => process.exit(1),
    );
  };
  process.on('SIGINT', () => void end());
  process.on('SIGTERM', () => void end());
}
