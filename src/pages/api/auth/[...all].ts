/** better-auth's own endpoints; it bounds tries and answers for itself. */
import type { APIRoute } from 'astro';

export const ALL: APIRoute = ({ request, locals }) => locals.rt.auth.handler(request);
