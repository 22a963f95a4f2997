/**
 * Many listings at once, a few statements for all of them: each with its version, audit line, links and dates, as one made by
 * hand. Used by jobs, in short transactions.
 */
import { toKeep } from '../history/happening';
import { type SQL, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import { freeSlug, slugOf } from '@/core/text/text';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import { newId } from '../db/ids';
import { horizonOf, indexRows, nextOf } from '../dates/date-index';
import { linkRows } from './links';
import { type Change, whatStops } from './write';
import { publishedValues } from './published-copy';

/** A listing to be made among many. */
export interface NewListing {
  content: ListingContent;
  publish: boolean;
}

/** A listing that was made, with its slug. */
export interface MadeListing {
  id: string;
  published: boolean;
  /** why it stayed a draft though it was to be published */
  reason: string | undefined;
}

/** The addresses that are taken among those that these titles want, and of those that are, all with a number behind. */
async function takenSlugs(tx: Db, titles: readonly string[]): Promise<Set<string>> {
  const wanted = JSON.stringify([...new Set(titles.map((title) => slugOf(title)))]);
  const all = sql`(select slug from listing union all select slug from old_slug) a`;
  const there = await addresses(tx, sql`select a.slug from ${all} join json_array_elements_text(${wanted}::json) w(slug) using (slug)`);
  if (!there.length) return new Set();
  const numbered = JSON.stringify(there.map((slug) => `${slug}-%`));
  const more = await addresses(
    tx,
    sql`select a.slug from ${all} where a.slug like any (select json_array_elements_text(${numbered}::json))`,
  );
  return new Set([...there, ...more]);
}

async function addresses(tx: Db, query: SQL): Promise<string[]> {
  const rows = await queryRows<{ slug: string }>(tx, query);
  return rows.map((row) => row.slug);
}

/** Rows of several tables, as the database names them. */
type Table = 'listing' | 'published' | 'version' | 'audit' | 'listing_link' | 'occurrence' | 'import_item' | 'import_source';
/** Rows by their table, to be written together. */
export type Rows = Partial<Record<Table, object[]>>;

/** One statement for all tables, their values one JSON text each: a question to the database costs more than some rows do. */
export async function insertTables(tx: Db, rows: Rows): Promise<void> {
  const tables = Object.entries(rows).filter(([, list]) => list.length);
  if (!tables.length) return;
  const inserts = tables.map(([table, list]) => {
    const name = sql.raw(table);
    const values = sql`json_populate_recordset(null::${name}, ${JSON.stringify(list)}::json)`;
    return sql`${sql.raw(`in_${table}`)} as (insert into ${name} select * from ${values})`;
  });
  await tx.execute(sql`with ${sql.join(inserts, sql`, `)} select 1`);
}

interface BuildInput {
  jobId: string | null;
  change: Change;
  /** the category of what is published without one */
  fallback: string;
}

/** The rows of new listings, drafts or published where Proof lets them pass, hidden while their job is. */
export async function buildMany(
  tx: Db,
  items: readonly NewListing[],
  { jobId, change, fallback }: BuildInput,
): Promise<{ made: MadeListing[]; rows: Rows }> {
  const { by, now, settings } = change;
  const at = new Date(now.ms).toISOString();
  const horizon = horizonOf(now.day, settings.horizonMonths);
  const taken = await takenSlugs(
    tx,
    items.map(({ content }) => content.title),
  );
  const rows = { listing: [], published: [], version: [], audit: [], listing_link: [], occurrence: [] } satisfies Rows as Required<
    Pick<Rows, 'listing' | 'published' | 'version' | 'audit' | 'listing_link' | 'occurrence'>
  >;
  const made = items.map(({ content, publish }): MadeListing => {
    const id = newId();
    const slug = freeSlug(slugOf(content.title), taken);
    taken.add(slug);
    const reason = publish ? whatStops(content, change) : undefined;
    const isPublic = publish && reason === undefined;
    const what = toKeep({ code: isPublic ? 'importedPublic' : 'imported' });
    const dates = indexRows({ listingId: id, content, isPublic: isPublic && content.visibility === 'public', settings, horizon });
    rows.occurrence.push(...dates);
    const own = {
      ...nextOf(dates, now.day),
      owner_id: by.id,
      job_id: jobId,
      edited: false,
      revision: 1,
      created_at: at,
      changed_at: at,
      first_published_at: isPublic ? at : null,
    };
    const untimed = { scheduled_by: '', schedule_wrong: '' };
    rows.listing.push({ id, slug, stage: isPublic ? 'published' : 'draft', title: content.title, working: content, ...own, ...untimed });
    rows.version.push({ id: newId(), listing_id: id, revision: 1, content, what, by_name: by.name, at });
    rows.audit.push({ id: newId(), at, by_id: by.id, by_name: by.name, what, kind: 'listing', subject_id: id });
    rows.listing_link.push(...linkRows(id, 'working', content).map(snake));
    if (isPublic) {
      const publication = { sequence: 0, publishedAt: new Date(now.ms), at: new Date(now.ms), fallback };
      rows.published.push({ ...snake(publishedValues({ id, slug }, content, publication)), job_id: jobId });
      rows.listing_link.push(...linkRows(id, 'published', content).map(snake));
    }
    return { id, published: isPublic, reason };
  });
  return { made, rows };
}

/** Names as the database has them. */
function snake(row: object): object {
  return Object.fromEntries(Object.entries(row).map(([key, value]) => [key.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`), value]));
}
