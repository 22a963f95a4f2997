/** Signs somebody in within the answer to a form, by the same way as programs do. Tries are bounded by better-auth, in the database. */
import type { Auth } from './auth';

/** What the sign-in library answers to a mail address and a password that came with a form. */
export function trySignIn(auth: Auth, request: Request, url: URL, who: { email: string; password: string }): Promise<Response> {
  const headers = new Headers(request.headers);
  headers.set('content-type', 'application/json');
  headers.delete('content-length');
  // The middleware has compared the origin with the host; programs without one are no other site's page.
  headers.set('origin', url.origin);
  return auth.handler(new Request(new URL('/api/auth/sign-in/email', url), { method: 'POST', headers, body: JSON.stringify(who) }));
}

/** Leads on to a page with the cookies that such an answer came with. */
export function signedIn(response: Response, to: string): Response {
  const answer = new Response(null, { status: 303, headers: { location: to } });
  for (const cookie of response.headers.getSetCookie()) answer.headers.append('set-cookie', cookie);
  return answer;
}
