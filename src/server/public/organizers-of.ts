/** Who organizes what readers see. */
import { and, asc, eq, inArray, isNotNull } from 'drizzle-orm';
import { addTo } from '@/core/collections/add-to';
import type { Db } from '../db/client';
import { link } from '../db/schema';

/** The organizers of published listings, in each one's order. */
export async function organizersOf(db: Db, listingIds: readonly string[]): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>();
  if (!listingIds.length) return found;
  const rows = await db
    .select({ listingId: link.listingId, organizerId: link.organizerId })
    .from(link)
    .where(and(inArray(link.listingId, [...listingIds]), eq(link.copy, 'published'), isNotNull(link.organizerId)))
    .orderBy(asc(link.listingId), asc(link.position));
  for (const { listingId, organizerId } of rows) if (organizerId) addTo(found, listingId, organizerId);
  return found;
}
