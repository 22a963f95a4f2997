/** Makes listings due for Proof again, because what they point to changed: a venue's hours, say. */
import { eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/client';
import { link, validationState } from '../db/schema';

/** Listings that name this are looked at again. */
export async function validateAgain(tx: Db, column: 'venueId' | 'organizerId' | 'categoryId' | 'pictureId', id: string): Promise<void> {
  const using = tx.select({ id: link.listingId }).from(link).where(eq(link[column], id));
  await tx.delete(validationState).where(inArray(validationState.listingId, using));
}
