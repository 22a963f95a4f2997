/** Changes one field of a listing from the table's row. The rest of the listing stays as it is. */
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { mostOf } from '@/core/listing/fields';
import { readCost } from '@/core/listing/cost';
import type { ListingContent } from '@/core/listing/content';
import { newRecurrence, retime } from '@/core/dates/repeat-choices';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import { listing } from '@/server/db/schema';
import { jsonEndpoint } from '@/server/http/endpoint';
import { idOf, invalid, notFound, Problem } from '@/server/problem';
import { moveToStage, publishListing, saveListing } from '@/server/listings/write';
import { serverWords } from '@/words/desk';

const w = serverWords.listingsIdRow;

const ids = (most: number) =>
  z
    .array(z.uuid())
    .max(most, w.atMost({ most }))
    .transform((list) => [...new Set(list)]);
const wall = z.string().refine((text) => parseIsoDateTime(text) !== undefined, { error: w.thereIsNoSuch() });
const set = z.discriminatedUnion('field', [
  z.object({
    field: z.literal('title'),
    value: z
      .string()
      .trim()
      .max(mostOf('title'), w.theTitleHasAt({ most: mostOf('title') })),
  }),
  z.object({ field: z.literal('stage'), value: z.enum(['draft', 'in-review', 'published', 'withdrawn', 'binned']) }),
  z.object({ field: z.literal('category'), value: z.uuid() }),
  z.object({ field: z.literal('venue'), value: z.union([z.uuid(), z.literal('')]) }),
  z.object({ field: z.literal('headline'), value: z.boolean() }),
  z.object({ field: z.literal('cost'), value: z.string().trim().max(120, w.theCostHasAt()) }),
  z.object({ field: z.literal('tags'), value: ids(30) }),
  z.object({ field: z.literal('organizers'), value: ids(10) }),
  /** the first day, and the time of day where it has one */
  z.object({ field: z.literal('when'), value: wall }),
]);
type Asked = z.infer<typeof set>;
const input = z.object({ revision: z.number().int().min(1), set });

/** The first of a list is exchanged; what stands behind it stays. */
const withFirst = (all: readonly string[], first: string): string[] =>
  first ? [first, ...all.slice(1).filter((id) => id !== first)] : all.slice(1);

/** The content as one field of its row makes it. */
function changed(
  content: ListingContent,
  asked: Exclude<Asked, { field: 'stage' }>,
  site: { currency: string; zone: string },
): ListingContent {
  switch (asked.field) {
    case 'title':
      return { ...content, title: asked.value.replace(/\s+/g, ' ') };
    case 'headline':
      return { ...content, headline: asked.value };
    case 'category':
      return { ...content, categoryIds: withFirst(content.categoryIds, asked.value) };
    case 'venue':
      return { ...content, venueIds: withFirst(content.venueIds, asked.value) };
    case 'cost':
      return { ...content, cost: readCost(asked.value, site.currency) };
    case 'tags':
      return { ...content, tagIds: asked.value };
    case 'organizers':
      return { ...content, organizerIds: asked.value };
    case 'when': {
      const start = parseIsoDateTime(asked.value);
      if (!start) throw invalid('when', w.thereIsNoSuchDate());
      const dated = content.recurrence ? content : { ...content, recurrence: newRecurrence(site.zone, start.day) };
      return retime(dated, 0, asked.value);
    }
  }
}

export const POST = jsonEndpoint(input, async ({ tx, input: { revision, set: asked }, change, context }) => {
  const id = idOf(context.params.id, 'listing');
  const [row] = await tx.select().from(listing).where(eq(listing.id, id)).for('update');
  if (!row) throw notFound('listing');
  const run = async () => {
    if (asked.field !== 'stage') {
      const content = changed(row.working, asked, change.settings);
      return saveListing(tx, { id, revision, content }, change);
    }
    if (row.revision !== revision) throw new Problem('conflict', w.somebodySavedItMeanwhile());
    if (asked.value === 'published') return publishListing(tx, id, revision, change);
    return moveToStage(tx, id, asked.value, change);
  };
  const next = await run();
  const { working } = next;
  return {
    ...{ revision: next.revision, stage: next.stage, edited: next.edited, title: next.title },
    ...{ cost: working.cost, start: working.recurrence?.parts[0]?.start ?? '', next: { day: next.nextDay, minute: next.nextMinute } },
  };
});
