/**
 * The state of what readers may see, apart from the drafts, mails and sessions that change all day: pages made for readers stay good while
 * it is the same. The database itself notes what changes of it (triggers write `finder_change`), so that no way of writing can forget to tell.
 */
import { sql } from 'drizzle-orm';
import type { Db } from '../db/db-type';
import { queryRows } from '../db/json-rows';

/** Follows the state of what readers may see. */
export class SeenContent {
  #notes = '';
  #revision = 0;

  constructor(private readonly db: Db) {}

  /** Rises whenever something that readers may see has changed, and sometimes when nothing has. */
  get revision(): number {
    return this.#revision;
  }

  /** Looks whether anything changed; asked after each write, before whoever wrote is answered. */
  async follow(): Promise<void> {
    // A transaction that noted something first may end last: its note is then one more, with a smaller number than the last.
    const notes = await queryRows<{ state: string }>(
      this.db,
      sql`select concat_ws(' ', count(*), max(id), sum(id)) as state from finder_change`,
    ).then(
      ([row]) => row?.state ?? '',
      // Where the database cannot be asked, everything counts as changed.
      () => undefined,
    );
    if (notes === undefined || notes !== this.#notes) this.#revision++;
    this.#notes = notes ?? '';
  }
}
