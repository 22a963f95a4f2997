/** Makes listings due for Proof again, because what they point to changed: a venue's hours, say. */
import { eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/client';
import { link, proofState } from '../db/schema';

export async function proofAgain(tx: Db, column: 'venueId' | 'organizerId' | 'categoryId' | 'pictureId', id: string): Promise<void> {
  const using = tx.select({ id: link.listingId }).from(link).where(eq(link[column], id));
  await tx.delete(proofState).where(inArray(proofState.listingId, using));
}
