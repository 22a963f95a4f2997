/** Every save and publication of a listing, and bringing one back. */
import type { StoredHappening } from '../history/happening';
import { and, desc, eq, lt, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';
import { version } from '../db/schema';
import { notFound } from '../problem';
import { type Change, saveListing } from './write';
import { z } from 'zod';
import { serverWords } from '@/words/desk';

const w = serverWords.listingsVersions;

/** A version as the page of versions shows it. */
export interface VersionRow {
  revision: number;
  what: StoredHappening;
  byName: string;
  at: Date;
}

/** The latest first; so many at most. */
export function readVersions(db: Db, listingId: string, most = 300): Promise<VersionRow[]> {
  return db
    .select({ revision: version.revision, what: version.what, byName: version.byName, at: version.at })
    .from(version)
    .where(eq(version.listingId, listingId))
    .orderBy(desc(version.revision), desc(version.at))
    .limit(most);
}

/** A listing as it was at one revision. */
export async function readVersion(db: Db, listingId: string, revision: number): Promise<{ content: ListingContent } | undefined> {
  const [row] = await db
    .select({ content: version.content })
    .from(version)
    .where(and(eq(version.listingId, listingId), eq(version.revision, revision)))
    .orderBy(desc(version.at))
    .limit(1);
  return row;
}

/** The latest version before one that differs from it: stages are versions too, and say nothing side by side. */
export async function lastDifferent(db: Db, listingId: string, revision: number): Promise<number | undefined> {
  const own = sql`(select v.content from version v where v.listing_id = ${listingId} and v.revision = ${revision} order by v.at desc limit 1)`;
  const [row] = await db
    .select({ revision: version.revision })
    .from(version)
    .where(and(eq(version.listingId, listingId), lt(version.revision, revision), sql`${version.content} <> ${own}`))
    .orderBy(desc(version.revision))
    .limit(1);
  return row?.revision;
}

const revision = z.coerce
  .number({ error: w.noSuchVersion() })
  .int(w.noSuchVersion())
  .min(1, w.noSuchVersion())
  .max(2_147_483_647, w.noSuchVersion());
/** What may come in to bring a version back: which one, and the revision that the page was opened with. */
export const restoreInput = z.object({ revision, opened: revision });

type RestoreInput = { id: string } & z.infer<typeof restoreInput>;

/** Makes a version the working copy again, as a new version. */
export async function restoreVersion(tx: Db, { id, revision, opened }: RestoreInput, change: Change): Promise<void> {
  const row = await readVersion(tx, id, revision);
  if (!row) throw notFound('version');
  await saveListing(tx, { id, content: row.content, revision: opened }, change, { code: 'restored', revision });
}
