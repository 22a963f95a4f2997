/** The database's own tables as rows of text, whatever they are in this version or another: a backup knows no names of columns. */
import { type SQL, sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';

/** Worked out again when it is asked for, or of the database itself: not worth a place in a backup. */
const LEFT_OUT: ReadonlySet<string> = new Set(['picture_file', 'finder_change']);
/** Whose bytes are files of their own beside the tables. */
export const PICTURE_TABLE = 'picture_source';
/** So many rows go at once. */
const AT_ONCE = 500;

/** The names of all tables of the site, sorted. */
export async function allTables(db: Db): Promise<string[]> {
  const rows = await queryRows<{ name: string }>(
    db,
    sql`select c.relname as name from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind = 'r' order by 1`,
  );
  return rows.map(({ name }) => name);
}

/** Those that a backup keeps. */
export const keptTables = async (db: Db): Promise<string[]> => (await allTables(db)).filter((name) => !LEFT_OUT.has(name));

/** What a table is read as: pictures without their bytes. */
async function source(tx: Db, table: string): Promise<SQL> {
  if (table !== PICTURE_TABLE) return sql`${sql.identifier(table)}`;
  const columns = await queryRows<{ name: string }>(
    tx,
    sql`select attname as name from pg_attribute where attrelid = ${table}::regclass and attnum > 0 and not attisdropped and attname <> 'bytes' order by attnum`,
  );
  const names = columns.map(({ name }) => sql`${sql.identifier(name)}`);
  return sql`(select ${sql.join(names, sql`, `)} from ${sql.identifier(table)})`;
}

/** A table's rows, each a line of JSON; within a transaction, whose state they are. */
export async function* tableLines(tx: Db, table: string): AsyncGenerator<string> {
  const from = await source(tx, table);
  await tx.execute(sql`declare backup_rows no scroll cursor for select row_to_json(t)::text as line from ${from} t`);
  try {
    for (;;) {
      const rows = await queryRows<{ line: string }>(tx, sql.raw(`fetch ${AT_ONCE} from backup_rows`));
      if (!rows.length) return;
      yield `${rows.map(({ line }) => line).join('\n')}\n`;
    }
  } finally {
    await tx.execute(sql`close backup_rows`).catch(() => undefined);
  }
}

/** Puts rows into an empty table. `bytesOf`: for pictures, the bytes of each by its hash. */
export async function insertLines(
  tx: Db,
  table: string,
  lines: AsyncIterable<string>,
  bytesOf: (hash: string) => Promise<Uint8Array>,
): Promise<number> {
  const name = sql.identifier(table);
  let n = 0;
  let waiting: string[] = [];
  const flush = async (): Promise<void> => {
    if (waiting.length)
      await tx.execute(sql`insert into ${name} select * from json_populate_recordset(null::${name}, ${`[${waiting.join(',')}]`}::json)`);
    waiting = [];
  };
  for await (const line of lines) {
    n++;
    if (table === PICTURE_TABLE) {
      const { hash } = JSON.parse(line) as { hash: string };
      const whole = sql`json_populate_record(null::${name}, ${line}::json)`;
      await tx.execute(
        sql`insert into ${name} select (json_populate_record(null::${name}, (to_jsonb(r) || jsonb_build_object('bytes', ${`\\x${Buffer.from(await bytesOf(hash)).toString('hex')}`}::text))::json)).* from ${whole} r`,
      );
      continue;
    }
    waiting.push(line);
    if (waiting.length >= AT_ONCE) await flush();
  }
  await flush();
  return n;
}

/** What one table asks of another, as the database says it. */
export interface ForeignKey {
  table: string;
  name: string;
  definition: string;
}

/** All foreign keys of the site's tables. */
export const foreignKeys = (tx: Db): Promise<ForeignKey[]> =>
  queryRows(
    tx,
    sql`select c.conrelid::regclass::text as "table", c.conname as name, pg_get_constraintdef(c.oid) as definition
      from pg_constraint c join pg_namespace n on n.oid = c.connamespace where n.nspname = 'public' and c.contype = 'f' order by 1, 2`,
  );

/** Does something without what tables ask of each other, and asks for it again afterwards: rows may come in any order, and all are checked. */
export async function withoutForeignKeys(tx: Db, run: () => Promise<void>): Promise<void> {
  const keys = await foreignKeys(tx);
  for (const { table, name } of keys) await tx.execute(sql`alter table ${sql.raw(table)} drop constraint ${sql.identifier(name)}`);
  await run();
  for (const { table, name, definition } of keys)
    await tx.execute(sql`alter table ${sql.raw(table)} add constraint ${sql.identifier(name)} ${sql.raw(definition)}`);
}
