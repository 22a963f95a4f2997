/** Makes drafts of many rows at once: all of them, or none. */
import { z } from 'zod';
import { MOST_LINES } from '@/core/entry/read-lines';
import { jsonEndpoint } from '@/server/http/endpoint';
import { contentInput } from '@/server/listings/input';
import { createListing } from '@/server/listings/write';
import { serverWords } from '@/words/desk';

const w = serverWords.entry;

const input = z.object({
  contents: z
    .array(contentInput)
    .min(1, w.thereIsNoRow())
    .max(MOST_LINES, w.atMostAtOnce({ mostLines: MOST_LINES }))
    .refine((all) => all.every((c) => c.title !== ''), { error: w.eachRowNeedsA() }),
});

export const POST = jsonEndpoint(input, async ({ tx, input: { contents }, change }) => {
  const made: { id: string; title: string }[] = [];
  for (const content of contents) {
    const { id, title } = await createListing(tx, content, change);
    made.push({ id, title });
  }
  return { made };
});
