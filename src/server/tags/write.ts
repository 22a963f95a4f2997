/** Tags: made by typing them, renamed, merged, removed. A tag is one however it is written: "Rope", "rope" and "ropé". */
import type { Happening } from '../history/happening';
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { fold, freeSlug, slugOf } from '@/core/text/text';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { tag } from '../db/schema';
import { invalid, notFound } from '../problem';
import type { Change } from '../listings/write';
import { type Gone, takeOut } from '../places/removed';
import { serverWords } from '@/words/desk';

const w = serverWords.tagsWrite;

/** The name of a tag. */
export const tagName = z
  .string({ error: w.typeATag() })
  .transform((text) => text.trim().replace(/^#+/, '').replace(/\s+/g, ' ').trim())
  .pipe(z.string().min(1, w.typeATag()).max(40, w.aTagHasAt()));
const MOST_TAGS = 2000;

const note = (tx: Db, id: string, what: Happening, by: Actor): Promise<void> => audited(tx, by, { kind: 'tag', id, what });

/** The tag of this name, made when there is none. */
export async function findOrMakeTag(tx: Db, name: string, by: Actor): Promise<{ id: string; name: string }> {
  const folded = fold(name);
  const [known] = await tx.select({ id: tag.id, name: tag.name }).from(tag).where(eq(tag.folded, folded));
  if (known) return known;
  const all = await tx.select({ slug: tag.slug }).from(tag);
  if (all.length >= MOST_TAGS) throw invalid('name', w.thereAreTagsAlready({ mostTags: MOST_TAGS.toLocaleString('en') }));
  const row = { id: newId(), name, folded, slug: freeSlug(slugOf(name, 'tag'), new Set(all.map((t) => t.slug))) };
  await tx.insert(tag).values(row);
  await note(tx, row.id, { code: 'named', name }, by);
  return { id: row.id, name };
}

/** Gives a tag another name; its address stays, so that links do. A name that another has is that one's: merge them instead. */
export async function renameTag(tx: Db, id: string, name: string, by: Actor): Promise<void> {
  const folded = fold(name);
  const [other] = await tx.select({ id: tag.id, name: tag.name }).from(tag).where(eq(tag.folded, folded));
  if (other && other.id !== id) throw invalid('name', w.isThereAlreadyMerge({ name: other.name }));
  const [row] = await tx
    .update(tag)
    .set({ name, folded, revision: sql`${tag.revision} + 1` })
    .where(eq(tag.id, id))
    .returning({ id: tag.id });
  if (!row) throw notFound('tag');
  await note(tx, id, { code: 'renamed', name }, by);
}

/** Listings of one tag get another in its place, or none; the tag is gone until that is taken back. */
export async function mergeTag(tx: Db, id: string, into: string | null, change: Change): Promise<Gone> {
  if (into === id) throw invalid('into', w.thatIsTheSame());
  const [row] = await tx.select().from(tag).where(eq(tag.id, id)).for('update');
  const [to] = into ? await tx.select({ id: tag.id, name: tag.name }).from(tag).where(eq(tag.id, into)) : [];
  if (!row || (into && !to)) throw notFound('tag');
  return takeOut(tx, { kind: 'tag', row, to: to ?? null, merged: to !== undefined }, change);
}
