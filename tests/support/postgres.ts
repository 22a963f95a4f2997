/** A PostgreSQL server of a test's own, where Debian's package is installed. */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** The folder of the newest server's programs; undefined when none is installed. */
export function postgresFolder(): string | undefined {
  const base = '/usr/lib/postgresql';
  const versions = existsSync(base) ? readdirSync(base).sort() : [];
  return versions
    .map((v) => path.join(base, v, 'bin'))
    .reverse()
    .find((bin) => existsSync(path.join(bin, 'initdb')));
}

const isRoot = process.getuid?.() === 0;
/** PostgreSQL refuses to run as root; Debian's package makes a user for it. */
const asServer = (command: string, args: string[]): [string, string[]] =>
  isRoot ? ['runuser', ['-u', 'postgres', '--', command, ...args]] : [command, args];

async function freePort(): Promise<number> {
  const server = net.createServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as net.AddressInfo;
  await new Promise((resolve) => server.close(resolve));
  return port;
}

const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** A server that is running, or down for a moment. */
export class Postgres {
  #server: ChildProcess | undefined;

  private constructor(
    private readonly bin: string,
    /** a folder that goes with it */
    readonly folder: string,
    private readonly port: number,
  ) {}

  static async start(bin: string): Promise<Postgres> {
    const folder = mkdtempSync(path.join(tmpdir(), 'almanac-pg-'));
    chmodSync(folder, 0o777);
    const cluster = path.join(folder, 'cluster');
    const args = ['-D', cluster, '-A', 'trust', '-U', 'almanac', '--locale=C.UTF-8', '-E', 'UTF8'];
    const [init, initArgs] = asServer(path.join(bin, 'initdb'), args);
    execFileSync(init, initArgs, { stdio: 'ignore', cwd: '/' });
    const server = new Postgres(bin, folder, await freePort());
    await server.up();
    return server;
  }

  get url(): string {
    return `postgres://almanac@127.0.0.1:${this.port}/postgres`;
  }

  /** Starts it, and waits until it takes connections. */
  async up(): Promise<void> {
    const options = ['-p', String(this.port), '-h', '127.0.0.1', '-k', this.folder, '-c', 'fsync=off'];
    const [command, args] = asServer(path.join(this.bin, 'postgres'), ['-D', path.join(this.folder, 'cluster'), ...options]);
    this.#server = spawn(command, args, { stdio: 'ignore', cwd: '/', detached: true });
    const { default: pg } = await import('pg');
    for (let tries = 0; ; tries++) {
      const client = new pg.Client({ connectionString: this.url });
      client.on('error', () => undefined);
      try {
        await client.connect();
        await client.end();
        return;
      } catch (error) {
        if (tries > 120) throw error;
        await wait(100);
      }
    }
  }

  /** Ends it: `fast` breaks connections, `immediate` as a crash does. */
  async down(how: 'fast' | 'immediate'): Promise<void> {
    const args = ['stop', '-D', path.join(this.folder, 'cluster'), '-m', how, '-w'];
    const [command, all] = asServer(path.join(this.bin, 'pg_ctl'), args);
    execFileSync(command, all, { stdio: 'ignore', cwd: '/' });
    this.#server = undefined;
  }

  async stop(): Promise<void> {
    if (this.#server) await this.down('immediate');
    rmSync(this.folder, { recursive: true, force: true });
  }
}
