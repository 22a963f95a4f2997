/** Makes drafts of many rows at once: all of them, or none. */
import { z } from 'zod';
import { MOST_LINES } from '@/core/entry/read-lines';
import { jsonEndpoint } from '@/server/http/endpoint';
import { contentInput } from '@/server/listings/input';
import { createListing } from '@/server/listings/write';

const input = z.object({
  contents: z
    .array(contentInput)
    .min(1, 'There is no row to make a draft of')
    .max(MOST_LINES, `At most ${MOST_LINES} at once`)
    .refine((all) => all.every((c) => c.title !== ''), { error: 'Each row needs a title' }),
});

export const POST = jsonEndpoint(input, async ({ tx, input: { contents }, change }) => {
  const made: { id: string; title: string }[] = [];
  for (const content of contents) {
    const { id, title } = await createListing(tx, content, change);
    made.push({ id, title });
  }
  return { made };
});
