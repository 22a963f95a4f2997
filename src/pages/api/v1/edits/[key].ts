/** Keeps what somebody types, as they type it, and says who else has the listing open. Readers see nothing of it. */
import type { APIRoute } from 'astro';
import { z } from 'zod';
import { isId } from '@/server/db/ids';
import { answer, readJson } from '@/server/http/endpoint';
import { notFound, read, refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { dropEdit, keepEdit, readOthers, stillOpen } from '@/server/listings/edits';
import { contentInput } from '@/server/listings/input';
import { readListing } from '@/server/listings/read';

const input = z.object({
  revision: z.number().int().min(0),
  /** absent: the form is open and nothing changed; null: nothing is unsaved any more */
  content: contentInput.nullable().optional(),
});

export const PUT: APIRoute = async ({ request, params, locals }) => {
  try {
    const { rt, actor } = locals;
    locals.unchanged = true;
    if (!actor) throw refused();
    const key = params.key ?? '';
    if (key !== 'new' && !isId(key)) throw notFound('listing');
    if (key !== 'new') await readListing(rt.db, key, actor);
    const { content, revision } = read(input, await readJson(request));
    // Real time, also where the site's day is set: it only tells what is open now.
    const at = new Date();
    await rt.db.transaction(async (tx) => {
      if (content === undefined) await stillOpen(tx, key, revision, actor, at);
      else if (content === null) await dropEdit(tx, key, actor.id);
      else await keepEdit(tx, { key, content, revision }, actor, at);
    });
    return answer({ others: await readOthers(rt.db, key, actor.id, at) });
  } catch (error) {
    return problemResponse(explain(error));
  }
};
