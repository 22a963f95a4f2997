/** Tags: made by typing them, renamed, merged, removed. A tag is one however it is written: "Rope", "rope" and "ropé". */
import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { fold, freeAddress, webAddress } from '@/core/text/text';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { placeMerge, tag } from '../db/schema';
import { invalid, notFound, Problem } from '../http/problem';
import { putBack, replaceInContents } from '../places/uses';

export const tagName = z
  .string({ error: 'Type a tag' })
  .transform((text) => text.trim().replace(/^#+/, '').replace(/\s+/g, ' ').trim())
  .pipe(z.string().min(1, 'Type a tag').max(40, 'A tag has at most 40 characters'));
const MOST_TAGS = 2000;

const note = (tx: Db, id: string, what: string, by: Actor): Promise<void> => audited(tx, by, { kind: 'tag', id, what });

/** The tag of this name, made when there is none. */
export async function findOrMakeTag(tx: Db, name: string, by: Actor): Promise<{ id: string; name: string }> {
  const folded = fold(name);
  const [known] = await tx.select({ id: tag.id, name: tag.name }).from(tag).where(eq(tag.folded, folded));
  if (known) return known;
  const all = await tx.select({ address: tag.address }).from(tag);
  if (all.length >= MOST_TAGS) throw invalid('name', `There are ${MOST_TAGS.toLocaleString('en')} tags already; merge some first.`);
  const row = { id: newId(), name, folded, address: freeAddress(webAddress(name, 'tag'), new Set(all.map((t) => t.address))) };
  await tx.insert(tag).values(row);
  await note(tx, row.id, `made “${name}”`, by);
  return { id: row.id, name };
}

/** Gives a tag another name; its address stays, so that links do. A name that another has is that one's: merge them instead. */
export async function renameTag(tx: Db, id: string, name: string, by: Actor): Promise<void> {
  const folded = fold(name);
  const [other] = await tx.select({ id: tag.id, name: tag.name }).from(tag).where(eq(tag.folded, folded));
  if (other && other.id !== id) throw invalid('name', `“${other.name}” is there already; merge the two.`);
  const [row] = await tx
    .update(tag)
    .set({ name, folded, revision: sql`${tag.revision} + 1` })
    .where(eq(tag.id, id))
    .returning({ id: tag.id });
  if (!row) throw notFound('tag');
  await note(tx, id, `renamed to “${name}”`, by);
}

/** Listings of one tag get another in its place, or none; the tag is gone until that is taken back. Says how many listings followed. */
export async function mergeTag(tx: Db, id: string, into: string | null, by: Actor, at: Date): Promise<number> {
  if (into === id) throw invalid('into', 'That is the same tag; choose the one that it is to become.');
  const [row] = await tx.select().from(tag).where(eq(tag.id, id)).for('update');
  const [target] = into ? await tx.select({ id: tag.id }).from(tag).where(eq(tag.id, into)) : [true];
  if (!row || !target) throw notFound('tag');
  const done = await replaceInContents(tx, 'tagIds', id, into);
  await tx.delete(tag).where(eq(tag.id, id));
  // Of a removed one, what it became is itself: nothing.
  const record = { format: 1 as const, row: { ...row }, listings: done, rooms: [], old: [] };
  await tx.insert(placeMerge).values({ id: newId(), kind: 'tag', fromId: id, intoId: into ?? id, record, byName: by.name, at });
  await note(tx, id, into ? `merged “${row.name}” into another` : `removed “${row.name}”`, by);
  return new Set(done.map((d) => d.listingId)).size;
}

/** Takes the merging or removing of a tag back: it is there again, and in every listing that nobody gave other tags since. */
export async function undoTag(tx: Db, merge: string, by: Actor, at: Date): Promise<{ name: string; listings: number; left: number }> {
  const [row] = await tx
    .select()
    .from(placeMerge)
    .where(and(eq(placeMerge.id, merge), eq(placeMerge.kind, 'tag')))
    .for('update');
  if (!row) throw notFound('tag');
  if (row.undoneAt) throw new Problem(409, 'That was taken back already.');
  const { record, fromId } = row;
  const before = record.row as typeof tag.$inferInsert;
  const [taken] = await tx.select({ name: tag.name }).from(tag).where(eq(tag.folded, before.folded));
  if (taken) throw new Problem(409, `There is a tag “${taken.name}” again; rename that one first.`);
  const all = await tx.select({ address: tag.address }).from(tag);
  await tx.insert(tag).values({ ...before, address: freeAddress(before.address, new Set(all.map((t) => t.address))) });
  const back = new Set<string>();
  const left = new Set<string>();
  for (const one of record.listings) {
    const done = await putBack(tx, 'tagIds', one, fromId, row.intoId === fromId ? null : row.intoId);
    (done ? back : left).add(one.listingId);
  }
  await tx.update(placeMerge).set({ undoneAt: at }).where(eq(placeMerge.id, merge));
  await note(tx, fromId, 'taken back', by);
  return { name: before.name, listings: back.size, left: [...left].filter((id) => !back.has(id)).length };
}

export interface TagDeed {
  id: string;
  name: string;
  /** what it became; null = it was removed */
  intoId: string | null;
  byName: string;
  at: Date;
}

/** Tags that were merged or removed and can come back, latest first. */
export async function readTagDeeds(db: Db): Promise<TagDeed[]> {
  const rows = await db
    .select()
    .from(placeMerge)
    .where(and(eq(placeMerge.kind, 'tag'), isNull(placeMerge.undoneAt)))
    .orderBy(desc(placeMerge.at), desc(placeMerge.id))
    .limit(20);
  return rows.map(({ id, record, fromId, intoId, byName, at }) => ({
    ...{ id, byName, at },
    name: String(record.row.name),
    intoId: intoId === fromId ? null : intoId,
  }));
}
