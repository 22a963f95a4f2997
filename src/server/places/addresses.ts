/** Web addresses of venues and organizers: free ones for new places, old ones that lead on. */
import { and, eq } from 'drizzle-orm';
import { freeAddress, webAddress } from '@/core/text/text';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { oldPlace, organizer, type PlaceKind, venue } from '../db/schema';

const TABLE = { venue, organizer };

/** An address of which nothing else is known, now or before. */
export async function freePlaceAddress(tx: Db, kind: PlaceKind, name: string): Promise<string> {
  const table = TABLE[kind];
  const taken = await tx.select({ address: table.address }).from(table);
  const old = await tx.select({ address: oldPlace.address }).from(oldPlace).where(eq(oldPlace.kind, kind));
  return freeAddress(webAddress(name, kind), new Set([...taken, ...old].map((row) => row.address)));
}

/** What a place that goes was known by leads to another from now on, or nowhere. */
export async function moveOldAddresses(
  tx: Db,
  kind: PlaceKind,
  from: { id: string; address: string },
  target: string | null,
): Promise<void> {
  const mine = and(eq(oldPlace.kind, kind), eq(oldPlace.targetId, from.id));
  if (!target) {
    await tx.delete(oldPlace).where(mine);
    return;
  }
  await tx.update(oldPlace).set({ targetId: target }).where(mine);
  await tx.insert(oldPlace).values({ kind, address: from.address, targetId: target });
}

/** Where an old address leads now; undefined when it never led anywhere. */
export async function readOldPlace(db: Db, kind: PlaceKind, address: string): Promise<string | undefined> {
  const table = TABLE[kind];
  const [row] = await db
    .select({ address: table.address })
    .from(oldPlace)
    .innerJoin(table, eq(table.id, oldPlace.targetId))
    .where(and(eq(oldPlace.kind, kind), eq(oldPlace.address, address)));
  return row?.address;
}

/** Who did what to a place. */
export const note = (tx: Db, kind: PlaceKind, id: string, what: string, by: Actor): Promise<void> => audited(tx, by, { kind, id, what });
