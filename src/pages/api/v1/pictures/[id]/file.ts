/** Another file in a picture's place, everywhere: multipart with `file`. JSON with `before` puts back what was there. */
import type { APIRoute } from 'astro';
import { z } from 'zod';
import { answer, readJson } from '@/server/http/endpoint';
import { idOf, read, refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { postedPicture } from '@/server/pictures/posted-pictures';
import { pictureChoice } from '@/server/pictures/read';
import { keepSource } from '@/server/pictures/take-in';
import { putBack, replacePicture } from '@/server/pictures/write';

const before = z.object({ before: z.string().regex(/^[0-9a-f]{64}$/) });

export const POST: APIRoute = async ({ params, request, locals }) => {
  try {
    const { rt, actor, now } = locals;
    if (!actor) throw refused();
    const id = idOf(params.id, 'picture');
    const at = new Date(now.ms);
    if (request.headers.get('content-type')?.includes('application/json')) {
      const { before: hash } = read(before, await readJson(request));
      return answer({ picture: pictureChoice(await rt.db.transaction((tx) => putBack(tx, id, hash, actor, at))) });
    }
    const source = await keepSource(rt, (await postedPicture(request)).bytes);
    const done = await rt.db.transaction((tx) => replacePicture(tx, id, source, actor, at));
    return answer({ picture: pictureChoice(done.row), before: done.before });
  } catch (error) {
    return problemResponse(explain(error));
  }
};
