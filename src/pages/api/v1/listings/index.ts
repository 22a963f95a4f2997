/** Makes a listing as a draft of whoever asks. */
import { z } from 'zod';
import { jsonEndpoint } from '@/server/http/endpoint';
import { dropEdit } from '@/server/listings/edits';
import { contentInput } from '@/server/listings/input';
import { createListing } from '@/server/listings/write';
import { serverWords } from '@/words/desk';

const w = serverWords.listings;

const input = z.object({
  content: contentInput,
  /** its web address; without one it comes from the title */
  slug: z.string().trim().max(200, w.atMost200Characters()).optional(),
});

export const POST = jsonEndpoint(input, async ({ tx, actor, input: asked, change }) => {
  const { id, revision, slug, stage } = await createListing(tx, asked.content, change, 'draft', asked.slug);
  await dropEdit(tx, 'new', actor.id);
  return { id, revision, slug, stage, edited: false };
});
