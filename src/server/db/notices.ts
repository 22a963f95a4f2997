/** On a database server several processes share the content: each tells the others of a change. */

const CHANNEL = 'almanac_content';

/** How a process tells the others of a change. */
export interface Notices {
  /** tells the others that something changed */
  tell: () => Promise<void>;
  stop: () => Promise<void>;
}

/** Listens for what other processes change; there are none beside an embedded database. */
export async function listenForChanges(databaseUrl: string | undefined, changed: () => Promise<void>): Promise<Notices> {
  if (!databaseUrl) return { tell: async () => undefined, stop: async () => undefined };
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await client.query(`listen ${CHANNEL}`);
  client.on('notification', () => void changed());
  return {
    tell: async () => {
      await client.query(`notify ${CHANNEL}`);
    },
    stop: () => client.end(),
  };
}
