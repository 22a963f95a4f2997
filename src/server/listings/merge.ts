/** Two listings of one event made one: what the other lacks is taken over, this one goes to the bin, its address leads on. */
import { eq } from 'drizzle-orm';
import { filledFrom } from '@/core/listing/merge';
import { authorize } from '../accounts/permissions';
import type { Db } from '../db/client';
import { listing, oldSlug } from '../db/schema';
import { invalid, notFound } from '../problem';
import { settleSubmission } from '../moderation/settle';
import { type Change, moveToStage, saveListing } from './write';
import { serverWords } from '@/words/desk';

const w = serverWords.listingsMerge;

/** `revision`: of this one, as the form was opened with it. */
export async function mergeListings(tx: Db, from: { id: string; revision: number }, intoId: string, change: Change): Promise<string> {
  if (from.id === intoId) throw invalid('into', w.aListingCannotBe());
  const [own] = await tx.select().from(listing).where(eq(listing.id, from.id)).for('update');
  const [into] = await tx.select().from(listing).where(eq(listing.id, intoId)).for('update');
  if (!own || !into) throw notFound('listing');
  authorize(change.by, 'merge', own);
  authorize(change.by, 'save', into);
  if (into.stage === 'binned') throw invalid('into', w.theOtherIsIn());
  const content = filledFrom(into.working, own.working);
  const saved = await saveListing(tx, { id: into.id, content, revision: into.revision }, change);
  const target = { id: saved.id, title: saved.title, slug: saved.slug, isPublic: saved.stage === 'published' };
  await settleSubmission(tx, own, { fate: 'merged', into: target }, change);
  await moveToStage(tx, own.id, 'binned', change);
  await tx
    .insert(oldSlug)
    .values({ slug: own.slug, listingId: into.id })
    .onConflictDoUpdate({ target: oldSlug.slug, set: { listingId: into.id } });
  return into.id;
}
