/** Changes one field of a listing from the table's row. The rest of the listing stays as it is. */
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { listing } from '@/server/db/schema';
import { jsonEndpoint } from '@/server/http/endpoint';
import { idOf } from '@/server/http/params';
import { notFound, Problem } from '@/server/http/problem';
import { moveToStage, publishListing, saveListing } from '@/server/listings/write';

const set = z.discriminatedUnion('field', [
  z.object({ field: z.literal('title'), value: z.string().trim().max(160, 'The title has at most 160 characters') }),
  z.object({ field: z.literal('stage'), value: z.enum(['draft', 'in-review', 'published', 'withdrawn', 'binned']) }),
  z.object({ field: z.literal('category'), value: z.uuid() }),
  z.object({ field: z.literal('venue'), value: z.union([z.uuid(), z.literal('')]) }),
  z.object({ field: z.literal('headline'), value: z.boolean() }),
]);
const input = z.object({ revision: z.number().int().min(1), set });

export const POST = jsonEndpoint(input, async ({ tx, input: { revision, set: asked }, change, context }) => {
  const id = idOf(context.params.id, 'listing');
  const [row] = await tx.select().from(listing).where(eq(listing.id, id)).for('update');
  if (!row) throw notFound('listing');
  const { working } = row;
  const run = async () => {
    switch (asked.field) {
      case 'stage':
        if (row.revision !== revision) throw new Problem(409, 'Somebody saved it meanwhile; look at it again first.');
        if (asked.value === 'published') return publishListing(tx, id, revision, change);
        return moveToStage(tx, id, asked.value, change);
      case 'title':
        return saveListing(tx, { id, revision, content: { ...working, title: asked.value.replace(/\s+/g, ' ') } }, change);
      case 'headline':
        return saveListing(tx, { id, revision, content: { ...working, headline: asked.value } }, change);
      case 'category': {
        const rest = working.categoryIds.slice(1).filter((c) => c !== asked.value);
        return saveListing(tx, { id, revision, content: { ...working, categoryIds: [asked.value, ...rest] } }, change);
      }
      default:
        return saveListing(
          tx,
          {
            id,
            revision,
            content: {
              ...working,
              venueIds: asked.value
                ? [asked.value, ...working.venueIds.slice(1).filter((v) => v !== asked.value)]
                : working.venueIds.slice(1),
            },
          },
          change,
        );
    }
  };
  const next = await run();
  return { revision: next.revision, stage: next.stage, edited: next.edited, title: next.title };
});
