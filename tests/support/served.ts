/** The built site, served by a process of its own until it is told to stop, or killed. */
import { type ChildProcess, spawn } from 'node:child_process';

/** A site that is served. */
export interface Served {
  url: string;
  /** where it is set up, while nobody has */
  setUp: string | undefined;
  process: ChildProcess;
  /** ends it with a signal; resolves with how it ended */
  ended: (signal: 'SIGTERM' | 'SIGKILL') => Promise<number | null>;
  stop: () => Promise<void>;
}

/** How it is served. */
export interface ServeInput {
  data: string;
  /** false = a site of its own, of which nobody knows anything yet */
  demo?: boolean;
  /** after `serve --demo` */
  more?: string[];
  env?: Record<string, string>;
  /** what Node is told before the program */
  node?: string[];
  /** where what it says of errors goes */
  errors?: 'inherit' | 'ignore';
}

/** What a site says that nobody has begun with, and the address that follows. */
const WAITS = /Nobody has set this site up/;
const SET_UP = /^ {2}(http:\S+first-visit\?key=\S+)$/m;

/** Serves the demo from a folder on a free port under the demo's clock; resolves when it answers. */
export async function serve({ data, demo = true, more = [], env = {}, node = [], errors = 'inherit' }: ServeInput): Promise<Served> {
  const server = spawn('node', [...node, 'dist/cli/main.mjs', 'serve', ...(demo ? ['--demo'] : []), ...more], {
    env: { ...process.env, PORT: '0', ALMANAC_DATA: data, ALMANAC_NOW: demo ? '2027-03-17T09:00' : '', ...env },
    stdio: ['ignore', 'pipe', errors],
  });
  let out = '';
  const over = new Promise<number | null>((done) => server.once('exit', (code) => done(code)));
  const url = await new Promise<string>((resolve, reject) => {
    server.stdout?.on('data', (part) => {
      out += part;
      const found = /Serving (http:\S+)/.exec(out);
      if (found?.[1] && (demo || !WAITS.test(out) || SET_UP.test(out))) resolve(found[1]);
    });
    server.once('exit', () => reject(new Error(`The site did not start: ${out}`)));
  });
  const ended = (signal: 'SIGTERM' | 'SIGKILL'): Promise<number | null> => {
    server.kill(signal);
    return over;
  };
  return { url, setUp: SET_UP.exec(out)?.[1], process: server, ended, stop: async () => void (await ended('SIGTERM')) };
}
