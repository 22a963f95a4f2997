/** Begins a listing as a copy of another. Proof holds it until its title and its dates were looked at. */
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { mostOf } from '@/core/listing/fields';
import { parseIsoDay } from '@/core/day/day';
import { copyOf } from '@/core/listing/copy';
import type { Db } from '../db/client';
import { listing, listingCopy } from '../db/schema';
import { notFound } from '../problem';
import { recurrenceInput } from './input';
import { type Change, createListing } from './write';
import { serverWords } from '@/words/desk';

const w = serverWords.listingsCopy;

/** What may come in as a wish for a copy. */
export const copyInput = z.object({
  title: z
    .string()
    .trim()
    .min(1, w.theTitleIsMissing())
    .max(mostOf('title'), w.theTitleHasAt({ most: mostOf('title') })),
  days: z.array(z.string().refine((text) => parseIsoDay(text) !== undefined, { error: w.thereIsNoSuch() })).max(60, w.atMost60Dates()),
  recurrence: recurrenceInput.nullish(),
});

/** Makes a draft of a listing's content, with dates of its own or none. */
export async function copyListing(
  tx: Db,
  id: string,
  { title, days, recurrence }: z.infer<typeof copyInput>,
  change: Change,
): Promise<{ id: string; unlooked: string[] }> {
  const [row] = await tx.select().from(listing).where(eq(listing.id, id));
  if (!row) throw notFound('listing');
  const content = copyOf(row.working, { title, days: days.flatMap((day) => parseIsoDay(day) ?? []), recurrence });
  const made = await createListing(tx, content, change);
  // What was asked for anew needs no second look.
  const unlooked = [
    ...(content.title === row.working.title ? (['title'] as const) : []),
    ...(days.length || recurrence ? [] : (['when'] as const)),
  ];
  await tx.insert(listingCopy).values({ listingId: made.id, fromTitle: row.title, fromId: id, unlooked });
  return { id: made.id, unlooked };
}
