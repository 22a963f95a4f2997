/** Large files come here in parts, by the open protocol for resumable uploads. */
import type { APIRoute } from 'astro';

const handle: APIRoute = ({ request, locals }) => {
  // A part of a file changes nothing that anybody sees.
  locals.unchanged = true;
  return locals.rt.uploads.handle(request);
};

export const POST = handle;
export const HEAD = handle;
export const PATCH = handle;
export const DELETE = handle;
