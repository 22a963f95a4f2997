/** Signing in again from an editor whose session ended; what else the library can do is done by the Desk's own pages. */
import type { APIRoute } from 'astro';
import { notFound } from '@/server/problem';
import { problemResponse } from '@/server/http/problem';

export const POST: APIRoute = ({ request, params, locals }) =>
  params.all === 'sign-in/email' ? locals.rt.auth.handler(request) : problemResponse(notFound('page'));
