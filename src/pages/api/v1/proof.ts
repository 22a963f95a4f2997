/** Proof of a content as it is being typed: everything around it, which the form itself cannot know. Writes nothing. */
import type { APIRoute } from 'astro';
import { z } from 'zod';
import { validate } from '@/core/validation/validate';
import { editsAll } from '@/server/accounts/roles';
import { answer, readJson } from '@/server/http/endpoint';
import { read, refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { contentInput } from '@/server/listings/input';
import { knownTo, readListing } from '@/server/listings/read';
import { fullContext } from '@/server/validation/context';
import { titlesOf } from '@/server/validation/titles';
import { readWaivers } from '@/server/validation/write';
import { wholeReference } from '@/server/reference/read';

const input = z.object({ id: z.uuid().nullable(), content: contentInput });

export const POST: APIRoute = async ({ request, locals }) => {
  try {
    const { rt, actor, settings, now } = locals;
    locals.unchanged = true;
    if (!actor) throw refused();
    const { id, content } = read(input, await readJson(request));
    if (id) await readListing(rt.db, id, actor);
    const reference = await wholeReference(rt);
    const answers = rt.cache.now();
    const titles = await titlesOf(rt.db, rt.cache);
    const context = await fullContext({ db: rt.db, settings, now, reference, titles, yearMarks: rt.yearMarks, answers }, id, content);
    // What belongs to others is told to those who may see it.
    const known = await knownTo(rt.db, actor, context.venueClashes?.map(({ booking }) => booking.listingId) ?? []);
    const venueClashes = context.venueClashes?.filter(({ booking }) => known.has(booking.listingId));
    const shown = editsAll(actor) ? context : { ...context, venueClashes, lookalikes: [], sameTitle: [], organizerClashes: [] };
    return answer({ notes: validate(content, shown), waivers: id ? await readWaivers(rt.db, id) : [] });
  } catch (error) {
    return problemResponse(explain(error));
  }
};
