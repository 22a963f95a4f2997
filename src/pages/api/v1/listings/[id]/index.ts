/** Saves the working copy. 409 with the newer copy when the form is older than the listing. */
import { z } from 'zod';
import { jsonEndpoint } from '@/server/http/endpoint';
import { idOf } from '@/server/http/params';
import { contentInput } from '@/server/listings/input';
import { saveListing } from '@/server/listings/write';

const input = z.object({ content: contentInput, revision: z.number().int().min(1) });

export const PUT = jsonEndpoint(input, async ({ tx, input: { content, revision: opened }, change, context }) => {
  const { revision, address, stage, edited } = await saveListing(
    tx,
    { id: idOf(context.params.id, 'listing'), content, revision: opened },
    change,
  );
  return { revision, address, stage, edited };
});
