/** The cookie of the demo's editor at a measured server. */
import { SIGN_INS } from '../../demo/people';

export async function signInCookie(base: string): Promise<string> {
  const { email, password } = SIGN_INS[1];
  const body = new URLSearchParams({ email, password });
  const signed = await fetch(`${base}/desk/sign-in`, { method: 'POST', redirect: 'manual', body, headers: { origin: base } });
  return signed.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
}
