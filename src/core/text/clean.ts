/** Text that comes from outside, without what cannot be kept. */

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
