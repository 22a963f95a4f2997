/** Web addresses of venues and organizers: free ones for new places, old ones that lead on. */
import type { Happening } from '../history/happening';
import { and, eq } from 'drizzle-orm';
import { freeSlug, slugOf } from '@/core/text/text';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { oldPlace, organizer, type PlaceKind, venue } from '../db/schema';

const TABLE = { venue, organizer };

/** An address of which nothing else is known, now or before. */
export async function freePlaceSlug(tx: Db, kind: PlaceKind, name: string): Promise<string> {
  const table = TABLE[kind];
  const taken = await tx.select({ slug: table.slug }).from(table);
  const old = await tx.select({ slug: oldPlace.slug }).from(oldPlace).where(eq(oldPlace.kind, kind));
  return freeSlug(slugOf(name, kind), new Set([...taken, ...old].map((row) => row.slug)));
}

/** What a place that goes was known by leads to another from now on, or nowhere. */
export async function moveOldAddresses(tx: Db, kind: PlaceKind, from: { id: string; slug: string }, target: string | null): Promise<void> {
  const mine = and(eq(oldPlace.kind, kind), eq(oldPlace.targetId, from.id));
  if (!target) {
    await tx.delete(oldPlace).where(mine);
    return;
  }
  await tx.update(oldPlace).set({ targetId: target }).where(mine);
  await tx.insert(oldPlace).values({ kind, slug: from.slug, targetId: target });
}

/** Where an old address leads now; undefined when it never led anywhere. */
export async function readOldPlace(db: Db, kind: PlaceKind, slug: string): Promise<string | undefined> {
  const table = TABLE[kind];
  const [row] = await db
    .select({ slug: table.slug })
    .from(oldPlace)
    .innerJoin(table, eq(table.id, oldPlace.targetId))
    .where(and(eq(oldPlace.kind, kind), eq(oldPlace.slug, slug)));
  return row?.slug;
}

/** Who did what to a place. */
export const note = (tx: Db, kind: PlaceKind, id: string, what: Happening, by: Actor): Promise<void> => audited(tx, by, { kind, id, what });
