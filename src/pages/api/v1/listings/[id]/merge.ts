/** Merges a listing into another of the same event. */
import { z } from 'zod';
import { jsonEndpoint } from '@/server/http/endpoint';
import { idOf } from '@/server/problem';
import { mergeListings } from '@/server/listings/merge';
import { serverWords } from '@/words/desk';

const w = serverWords.listingsIdMerge;

const input = z.object({ into: z.uuid({ error: w.chooseTheListingThat() }), revision: z.number().int().min(1) });

export const POST = jsonEndpoint(input, async ({ tx, input: { into, revision }, change, context }) => ({
  into: await mergeListings(tx, { id: idOf(context.params.id, 'listing'), revision }, into, change),
}));
