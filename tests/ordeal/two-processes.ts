/** Two processes that serve one site over a database server. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Postgres, postgresFolder } from '../support/postgres';
import { serve, type Served } from '../support/served';

/** What a process is told to take part in a server's site. */
export const sharing = ({ url }: Postgres): Record<string, string> => ({
  DATABASE_URL: url,
  ALMANAC_SECRET: 'an ordeal’s secret of more than thirty-two letters',
});

/** Two processes that share a database server, and what each needs. */
export async function twoProcesses(run: (sites: [Served, Served], server: Postgres) => Promise<void>): Promise<void> {
  const bin = postgresFolder();
  if (!bin) throw new Error('Debian’s postgresql is not installed: this ordeal needs a database server of its own.');
  const server = await Postgres.start(bin);
  const folder = mkdtempSync(path.join(tmpdir(), 'almanac-two-'));
  const env = sharing(server);
  const start = (name: string): Promise<Served> => serve({ data: path.join(folder, name), env, errors: 'ignore' });
  const one = await start('one');
  const other = await start('other');
  try {
    await run([one, other], server);
  } finally {
    await Promise.all([one.stop(), other.stop()]);
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
