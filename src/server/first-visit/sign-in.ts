/** Signs somebody in within the answer to a form. */
import type { Auth } from '../accounts/auth';

/** Leads on, signed in where mail address and password are those of an account; else to the page for signing in. */
export async function signIn(
  auth: Auth,
  request: Request,
  url: URL,
  who: { email: string; password: string },
  to: string,
): Promise<Response> {
  const headers = new Headers(request.headers);
  headers.set('content-type', 'application/json');
  headers.delete('content-length');
  // The middleware has compared the origin with the host; programs without one are no other site's page.
  headers.set('origin', url.origin);
  const asked = new Request(new URL('/api/auth/sign-in/email', url), { method: 'POST', headers, body: JSON.stringify(who) });
  const response = await auth.handler(asked);
  const answer = new Response(null, { status: 303, headers: { location: response.ok ? to : '/desk/sign-in' } });
  for (const cookie of response.headers.getSetCookie()) answer.headers.append('set-cookie', cookie);
  return answer;
}
