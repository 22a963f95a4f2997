/** On a database server several processes share the content: each tells the others of a change. */
import { log } from '../health/log';

const CHANNEL = 'almanac_content';
/** After its connection broke a process listens again so much later, in milliseconds: at first soon, then less often. */
const AGAIN_MS = [200, 1_000, 5_000];

/** How a process tells the others of a change. */
export interface Notices {
  /** tells the others that something changed */
  tell: () => Promise<void>;
  stop: () => Promise<void>;
}

/**
 * Listens for what other processes change; there are none beside an embedded database. A connection that breaks is made again, and
 * everything then counts as changed, since nobody knows what was missed.
 * @param print tells one secret from another without giving it away: each notice has that of its sender
 * @param changed is handed the sender's
 */
export async function listenForChanges(
  databaseUrl: string | undefined,
  print: string,
  changed: (print: string) => Promise<void>,
): Promise<Notices> {
  if (!databaseUrl) return { tell: async () => undefined, stop: async () => undefined };
  const { default: pg } = await import('pg');
  let client: InstanceType<typeof pg.Client> | undefined;
  let timer: NodeJS.Timeout | undefined;
  let stopped = false;
  const open = async (): Promise<void> => {
    const fresh = new pg.Client({ connectionString: databaseUrl, keepAlive: true, connectionTimeoutMillis: 5_000 });
    fresh.on('error', () => undefined);
    await fresh.connect();
    await fresh.query(`listen ${CHANNEL}`);
    fresh.on('notification', ({ payload = '' }) => void changed(payload));
    fresh.on('end', () => {
      client = undefined;
      if (!stopped) again(0);
    });
    client = fresh;
    if (stopped) await fresh.end();
  };
  // Without a connection nobody is told now; all are, this process too, as soon as there is one again.
  const tell = async (): Promise<void> => {
    await client
      ?.query('select pg_notify($1, $2)', [CHANNEL, print])
      .catch((error: unknown) => log.warn({ err: error }, 'Other processes were not told of a change'));
  };
  const again = (tries: number): void => {
    timer = setTimeout(
      () =>
        void open().then(tell, (error: unknown) => {
          log.warn({ err: error }, 'Changes of other processes are not heard at the moment');
          again(tries + 1);
        }),
      AGAIN_MS[Math.min(tries, AGAIN_MS.length - 1)],
    ).unref();
  };
  await open();
  return {
    tell,
    stop: async () => {
      stopped = true;
      clearTimeout(timer);
      await client?.end().catch(() => undefined);
    },
  };
}
