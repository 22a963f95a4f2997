/** Unsaved edits, one a person and listing: kept as they are typed, found again on any machine, gone when they are saved. */
import { and, eq, gt, isNotNull, ne, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { edit, user } from '../db/schema';

/** A form says every so often that it is open; after this many milliseconds without that it is taken for closed. */
export const OPEN_MS = 45_000;

/** What somebody typed and has not saved. */
export interface KeptEdit {
  content: ListingContent;
  revision: number;
  changedAt: Date;
}

/** What is typed, over which revision. */
export interface EditInput {
  /** a listing's id, or `new` */
  key: string;
  content: ListingContent | null;
  revision: number;
}

/** Keeps what somebody typed; `content` null says only that the form is open. */
export async function keepEdit(tx: Db, { key, content, revision }: EditInput, by: Actor, at: Date): Promise<void> {
  if (!by.id) return;
  const listingId = key === 'new' ? null : key;
  const values = { userId: by.id, key, listingId, content, revision, changedAt: at, seenAt: at };
  await tx
    .insert(edit)
    .values(values)
    .onConflictDoUpdate({ target: [edit.userId, edit.key], set: { content, revision, changedAt: at, seenAt: at } });
}

/** The form is still open: what was typed stays as it is kept. */
export async function stillOpen(tx: Db, key: string, revision: number, by: Actor, at: Date): Promise<void> {
  if (!by.id) return;
  const values = { userId: by.id, key, listingId: key === 'new' ? null : key, content: null, revision, changedAt: at, seenAt: at };
  await tx
    .insert(edit)
    .values(values)
    .onConflictDoUpdate({ target: [edit.userId, edit.key], set: { seenAt: at } });
}

/** Forgets what somebody typed and did not save. */
export async function dropEdit(tx: Db, key: string, userId: string | null): Promise<void> {
  if (userId) await tx.delete(edit).where(and(eq(edit.userId, userId), eq(edit.key, key)));
}

/** What somebody typed and did not save; undefined when there is nothing. */
export async function readEdit(db: Db, key: string, userId: string | null): Promise<KeptEdit | undefined> {
  if (!userId) return undefined;
  const [row] = await db
    .select()
    .from(edit)
    .where(and(eq(edit.userId, userId), eq(edit.key, key), isNotNull(edit.content)));
  return row?.content ? { content: row.content, revision: row.revision, changedAt: row.changedAt } : undefined;
}

/** Somebody else who has the listing open. */
export interface OtherEditor {
  name: string;
  /** has typed something that is not saved */
  typing: boolean;
}

/** Who else has a listing open, and who typed something in it that is not saved. */
export async function readOthers(db: Db, key: string, userId: string | null, at: Date): Promise<OtherEditor[]> {
  if (key === 'new') return [];
  return db
    .select({ name: user.name, typing: sql<boolean>`${edit.content} is not null` })
    .from(edit)
    .innerJoin(user, eq(user.id, edit.userId))
    .where(and(eq(edit.key, key), ne(edit.userId, userId ?? ''), gt(edit.seenAt, new Date(at.getTime() - OPEN_MS))))
    .orderBy(user.name);
}
