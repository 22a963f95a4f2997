/** Views of the table that somebody kept: their filters, order and columns, by an address of their own. */
import { and, asc, eq, isNull, or } from 'drizzle-orm';
import { freeSlug, slugOf } from '@/core/text/text';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { savedView } from '../db/schema';
import { invalid, notFound } from '../problem';
import { serverWords } from '@/words/desk';

const w = serverWords.deskSavedViews;

/** A choice of the table that somebody keeps under a name. */
export type SavedView = typeof savedView.$inferSelect;
const MOST_VIEWS = 60;
/** What of the table's address is kept. */
const KEPT = ['words', 'stage', 'category', 'venue', 'organizer', 'owner', 'having', 'next', 'sort', 'down', 'columns'] as const;

/** One's own views and those for everybody. */
export function readViews(db: Db, userId: string | null): Promise<SavedView[]> {
  return db
    .select()
    .from(savedView)
    .where(or(isNull(savedView.ownerId), eq(savedView.ownerId, userId ?? '')))
    .orderBy(asc(savedView.name), asc(savedView.id));
}

/** A kept view by its address, where it is everybody’s or their own. */
export async function readView(db: Db, slug: string, userId: string | null): Promise<SavedView | undefined> {
  const [view] = await db
    .select()
    .from(savedView)
    .where(and(eq(savedView.slug, slug), or(isNull(savedView.ownerId), eq(savedView.ownerId, userId ?? ''))));
  return view;
}

interface ViewInput {
  name: string;
  query: URLSearchParams;
  /** null = for everybody */
  ownerId: string | null;
}

/** Keeps a view of the table under a name. */
export async function keepView(tx: Db, { name, query, ownerId }: ViewInput): Promise<SavedView> {
  const words = name.trim();
  if (!words) throw invalid('name', w.giveTheViewA());
  if (words.length > 60) throw invalid('name', w.theNameHasAt());
  const all = await tx.select({ slug: savedView.slug }).from(savedView);
  if (all.length >= MOST_VIEWS) throw invalid('name', w.thereAreViewsAlready({ mostViews: MOST_VIEWS }));
  const kept = new URLSearchParams(KEPT.flatMap((key) => (query.get(key) ? [[key, query.get(key) as string]] : [])));
  const slug = freeSlug(slugOf(words, 'view'), new Set(all.map((v) => v.slug)));
  const [row] = await tx.insert(savedView).values({ id: newId(), slug, name: words, query: kept.toString(), ownerId }).returning();
  if (!row) throw notFound('view');
  return row;
}

/** Drops a view: one's own, or one for everybody where somebody may edit everything. */
export async function dropView(tx: Db, slug: string, userId: string | null, editsAll: boolean): Promise<void> {
  const mine = editsAll ? or(isNull(savedView.ownerId), eq(savedView.ownerId, userId ?? '')) : eq(savedView.ownerId, userId ?? '');
  const gone = await tx
    .delete(savedView)
    .where(and(eq(savedView.slug, slug), mine))
    .returning({ id: savedView.id });
  if (!gone.length) throw notFound('view');
}
