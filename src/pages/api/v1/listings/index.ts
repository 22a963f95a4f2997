/** Makes a listing as a draft of whoever asks. */
import { z } from 'zod';
import { jsonEndpoint } from '@/server/http/endpoint';
import { dropEdit } from '@/server/listings/edits';
import { contentInput } from '@/server/listings/input';
import { createListing } from '@/server/listings/write';

export const POST = jsonEndpoint(z.object({ content: contentInput }), async ({ tx, actor, input, change }) => {
  const { id, revision, address, stage } = await createListing(tx, input.content, change);
  await dropEdit(tx, 'new', actor.id);
  return { id, revision, address, stage, edited: false };
});
