/** The server half of the command line: Astro's handler behind plain HTTP, on a Unix socket and, when serving, a port. */
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import http, { type IncomingMessage, type ServerResponse } from 'node:http';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { CliError, EXIT } from './problem';

type Handler = (req: IncomingMessage, res: ServerResponse, next?: (error?: unknown) => void, locals?: object) => void;

/** dist/cli/main.mjs lies two folders below the project. */
export const ROOT = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..');
export const VERSION: string = JSON.parse(readFileSync(path.join(ROOT, 'package.json'), 'utf8')).version;

export function dataFolder(): string {
  return path.resolve(process.env.ALMANAC_DATA ?? path.join(ROOT, 'data'));
}

const SOCKET = 'almanac.sock';
/** Linux takes no longer path for a socket. */
const MAX_SOCKET_PATH = 104;

export interface Site {
  ask: (command: string, input?: unknown) => Promise<unknown>;
  /** leaves a running server as it is; stops the one that was started for this command */
  leave: () => Promise<void>;
}

export async function loadHandler(): Promise<Handler> {
  process.env.ALMANAC_ROOT = ROOT;
  process.env.ALMANAC_DATA = dataFolder();
  const entry = path.join(ROOT, 'dist/server/entry.mjs');
  if (!existsSync(entry)) throw new CliError('The site is not built yet: run npm run build, or ./bin/demo.');
  const worker = path.join(ROOT, 'dist/worker/thread.mjs');
  if (existsSync(worker)) process.env.ALMANAC_WORKER ??= worker;
  const { handler } = (await import(pathToFileURL(entry).href)) as { handler: Handler };
  return handler;
}

export function prepareFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    const probe = path.join(folder, `.probe-${process.pid}`);
    mkdirSync(probe);
    rmSync(probe, { recursive: true });
  } catch {
    throw new CliError(`The data folder ${folder} cannot be written. Make it writable, or set ALMANAC_DATA to another folder.`);
  }
  if (path.join(folder, SOCKET).length > MAX_SOCKET_PATH)
    throw new CliError(`The path of the data folder ${folder} is too long; set ALMANAC_DATA to a shorter one.`);
}

/** One question through a socket. Refusals come as CliError with the server's sentence. */
export function askSocket(socketPath: string, command: string, input: unknown = {}): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const request = http.request(
      { socketPath, path: `/api/operator/${command}`, method: 'POST', headers: { 'content-type': 'application/json' } },
      (response) => {
        let text = '';
        response.setEncoding('utf8');
        response.on('data', (part: string) => {
          text += part;
        });
        response.on('end', () => {
          try {
            const body = JSON.parse(text) as { title?: string };
            const status = response.statusCode ?? 500;
            if (status >= 400)
              reject(new CliError(body.title ?? 'The server refused.', status === 413 || status === 422 ? EXIT.refused : EXIT.failed));
            else resolve(body);
          } catch {
            reject(new CliError('The server answered something that is no JSON.'));
          }
        });
      },
    );
    request.on('error', reject);
    const body = JSON.stringify(input);
    request.setHeader('content-length', Buffer.byteLength(body));
    request.end(body);
  });
}

/** Is a server running on this folder? */
export async function isRunning(folder: string): Promise<boolean> {
  const socket = path.join(folder, SOCKET);
  if (!existsSync(socket)) return false;
  return askSocket(socket, 'ready').then(
    () => true,
    (error: unknown) => error instanceof CliError,
  );
}

/** An account of a demo, which is no secret. */
export interface SignIn {
  email: string;
  password: string;
  role: string;
}

/** How the site is when it is opened. */
interface Ready {
  /** it has no listings */
  empty: boolean;
  /** somebody has begun with it */
  setUp: boolean;
  /** a demo's accounts; any other site tells nobody's */
  signIns: SignIn[];
}

/** Starts the operator's side on the folder: opens the database, then listens on the socket, mode 0600. */
export async function startOperator(handler: Handler, folder: string): Promise<Ready & { stop: () => Promise<void> }> {
  const listener = http.createServer((req, res) => handler(req, res, undefined, { operator: true }));
  // Under a name of its own until the folder is known to be ours: another server's socket stays as it is.
  const own = path.join(folder, `.s${process.pid}`);
  rmSync(own, { force: true });
  await new Promise<void>((resolve, reject) => listener.once('error', reject).listen(own, resolve));
  chmodSync(own, 0o600);
  const stopListening = async (): Promise<void> => {
    listener.closeAllConnections();
    await new Promise<void>((resolve) => listener.close(() => resolve()));
    rmSync(own, { force: true });
  };
  let ready: Ready;
  try {
    ready = (await askSocket(own, 'ready')) as Ready;
  } catch (error) {
    await stopListening();
    throw error;
  }
  const socket = path.join(folder, SOCKET);
  renameSync(own, socket);
  return {
    ...ready,
    stop: async () => {
      await askSocket(socket, 'close').catch(() => undefined);
      rmSync(socket, { force: true });
      await stopListening();
    },
  };
}

/** The running server, or one that is started for the while of a command. */
export async function openSite(): Promise<Site> {
  const folder = dataFolder();
  prepareFolder(folder);
  const socket = path.join(folder, SOCKET);
  if (await isRunning(folder)) return { ask: (command, input) => askSocket(socket, command, input), leave: async () => undefined };
  const operator = await startOperator(await loadHandler(), folder);
  return {
    ask: (command, input) => askSocket(socket, command, input),
    leave: async () => {
      await operator.stop();
    },
  };
}
