/** Takes a picture: multipart, one file `file`, words `alt` and `credit`. */
import type { APIRoute } from 'astro';
import { answer } from '@/server/http/endpoint';
import { explain, invalid, problemResponse } from '@/server/http/problem';
import { keepPicture } from '@/server/pictures/write';

export const POST: APIRoute = async ({ request, locals }) => {
  try {
    const form = await request.formData().catch(() => undefined);
    const file = form?.get('file');
    if (!form || !(file instanceof File)) throw invalid('picture', 'Choose a picture first.');
    const words = { alt: String(form.get('alt') ?? ''), credit: String(form.get('credit') ?? '') };
    return answer(await keepPicture(locals.rt.db, Buffer.from(await file.arrayBuffer()), words));
  } catch (error) {
    return problemResponse(explain(error));
  }
};
