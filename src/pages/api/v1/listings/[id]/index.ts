/** A listing's working copy, and saving it. 409 with the newer copy when the form is older than the listing. */
import type { APIRoute } from 'astro';
import { z } from 'zod';
import { answer, jsonEndpoint } from '@/server/http/endpoint';
import { idOf, refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { dropEdit } from '@/server/listings/edits';
import { contentInput } from '@/server/listings/input';
import { readListing } from '@/server/listings/read';
import { saveListing } from '@/server/listings/write';

export const GET: APIRoute = async ({ params, locals: { rt, actor } }) => {
  try {
    if (!actor) throw refused();
    const { working, revision, stage, edited, slug } = await readListing(rt.db, idOf(params.id, 'listing'), actor);
    return answer({ content: working, revision, stage, edited, slug });
  } catch (error) {
    return problemResponse(explain(error));
  }
};

const input = z.object({ content: contentInput, revision: z.number().int().min(1) });

export const PUT = jsonEndpoint(input, async ({ tx, actor, input: { content, revision: opened }, change, context }) => {
  const id = idOf(context.params.id, 'listing');
  const { revision, slug, stage, edited } = await saveListing(tx, { id, content, revision: opened }, change);
  // What was typed is saved now; nothing of it is unsaved any more.
  await dropEdit(tx, id, actor.id);
  return { revision, slug, stage, edited };
});
