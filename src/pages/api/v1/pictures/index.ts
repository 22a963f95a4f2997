/** POST takes a picture: multipart, one file `file`, words `alt` and `credit`. GET searches the library, for choosing from it. */
import type { APIRoute } from 'astro';
import { answer } from '@/server/http/endpoint';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { postedPicture } from '@/server/pictures/posted-pictures';
import { PAGE, readLibrary, readLibraryQuery } from '@/server/pictures/library';
import { pictureChoice } from '@/server/pictures/read';
import { keepPicture } from '@/server/pictures/take-in';

export const POST: APIRoute = async ({ request, locals }) => {
  try {
    const sent = await postedPicture(request);
    const at = new Date(locals.now.ms);
    const { picture, known } = await keepPicture(locals.rt, { ...sent, ownerId: locals.actor?.id ?? null, at });
    return answer({ ...pictureChoice(picture), known });
  } catch (error) {
    return problemResponse(explain(error));
  }
};

export const GET: APIRoute = async ({ url, locals }) => {
  try {
    const { rows, total } = await readLibrary(locals.rt.db, { ...readLibraryQuery(url.searchParams), binned: false }, locals.settings);
    return answer({ pictures: rows.map(pictureChoice), total, page: PAGE });
  } catch (error) {
    return problemResponse(explain(error));
  }
};
