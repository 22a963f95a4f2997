/** What came with a request, as text that can be kept. */
import { Problem } from './problem';

/** PostgreSQL keeps no NUL, and half of a surrogate pair is no character; neither is ever typed. */
export function clean(text: string): string {
  return text.replaceAll('\0', '').toWellFormed();
}

const UNCLEAN = /\\u(0000|d[89a-f])/i;

/** A JSON text with its strings cleaned; throws as JSON.parse does. */
export function parseJson(text: string): unknown {
  // Only what is written with an escape can be unclean: bytes were decoded already, and raw control characters are no JSON.
  if (!UNCLEAN.test(text)) return JSON.parse(text);
  return JSON.parse(text, (_key, value: unknown) => (typeof value === 'string' ? clean(value) : value));
}

/** A posted form with its texts cleaned; a Problem when the body is no form. */
export async function readForm(request: Request): Promise<FormData> {
  const sent = await request.formData().catch(() => undefined);
  if (!sent) throw new Problem(400, 'This form could not be read. Open the page again and send it anew.');
  const form = new FormData();
  for (const [name, value] of sent) form.append(clean(name), typeof value === 'string' ? clean(value) : value);
  return form;
}

/** Refuses an address that holds a NUL: nothing here has one, and the database would stumble over it. */
export function checkAddress(url: URL): void {
  if (/%00/.test(url.pathname + url.search)) throw new Problem(400, 'This address holds a character that no address has.');
}
