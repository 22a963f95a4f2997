/** Begins a listing as a copy of another, on the days that are given. */
import { jsonEndpoint } from '@/server/http/endpoint';
import { idOf } from '@/server/problem';
import { copyInput, copyListing } from '@/server/listings/copy';
import { readListing } from '@/server/listings/read';

export const POST = jsonEndpoint(copyInput, async ({ tx, actor, input, change, context }) => {
  const id = idOf(context.params.id, 'listing');
  await readListing(tx, id, actor);
  return copyListing(tx, id, input, change);
});
