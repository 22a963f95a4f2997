import type { APIRoute } from 'astro';

export const POST: APIRoute = async ({ request, locals }) => {
  const done = await locals.rt.auth.api.signOut({ headers: request.headers, asResponse: true });
  const response = new Response(null, { status: 303, headers: { location: '/desk/sign-in' } });
  for (const cookie of done.headers.getSetCookie()) response.headers.append('set-cookie', cookie);
  return response;
};
