/** Many listings mended, or answered for, at once. Each listing is a transaction of its own: all of it or nothing. */
import { eq } from 'drizzle-orm';
import type { Db } from '../db/client';
import { listing } from '../db/schema';
import { Problem } from '../problem';
import { type Change, publishListing, saveListing } from '../listings/write';
import type { ValidationSite } from './context';
import { validateListing, waiveNote } from './write';
import { serverWords } from '@/words/desk';

const w = serverWords.validationQuickFixes;

/** How many listings were mended, and which stayed and why. */
export interface QuickFixReport {
  fixed: number;
  /** of these, so many are published again */
  published: number;
  /** titles that stayed as they were, and why */
  stayed: { title: string; reason: string }[];
}

/** Looks at a listing anew and puts its mend of a kind in place; one that changed meanwhile and needs none stays. */
export async function fixOne(
  tx: Db,
  site: ValidationSite,
  { id, kind }: { id: string; kind: string },
  change: Change,
): Promise<{ fixed: boolean; published: boolean }> {
  const [row] = await tx.select().from(listing).where(eq(listing.id, id)).for('update');
  if (!row) throw new Problem('missing', w.itWasRemovedMeanwhile());
  const quickFix = (await validateListing(tx, site, id)).find((note) => note.kind === kind)?.quickFix;
  if (!quickFix) return { fixed: false, published: false };
  const live = row.stage === 'published' && !row.edited;
  const saved = await saveListing(tx, { id, content: { ...row.working, ...quickFix.content }, revision: row.revision }, change);
  // What was published as it stood is published again; where changes waited already, they go on waiting.
  if (live) await publishListing(tx, id, saved.revision, change);
  await validateListing(tx, site, id);
  return { fixed: true, published: live };
}

/** Mends one kind of note in many listings, each by the first quick fix that it has. */
export async function fixMany(site: ValidationSite, ids: readonly string[], kind: string, change: Change): Promise<QuickFixReport> {
  const report: QuickFixReport = { fixed: 0, published: 0, stayed: [] };
  for (const id of ids) {
    try {
      const done = await site.db.transaction((tx) => fixOne(tx, site, { id, kind }, change));
      if (done.fixed) report.fixed++;
      if (done.published) report.published++;
      if (!done.fixed) report.stayed.push({ title: await titleOf(site.db, id), reason: w.nothingToMendAny() });
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      report.stayed.push({ title: await titleOf(site.db, id), reason: error.title });
    }
  }
  return report;
}

async function titleOf(db: Db, id: string): Promise<string> {
  const [row] = await db.select({ title: listing.title }).from(listing).where(eq(listing.id, id));
  return row?.title ?? w.oneThatIsGone();
}

/** Answers for the same note of many listings with one reason. */
export async function waiveMany(
  tx: Db,
  chosen: readonly { id: string; key: string }[],
  reason: string,
  { by, now }: Change,
): Promise<void> {
  for (const { id, key } of chosen) await waiveNote(tx, id, key, reason, by, new Date(now.ms));
}
