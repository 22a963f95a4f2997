/** If-None-Match as RFC 9110 13.1.2 has it: a list, weak or strong, or any. */

/** Does the header name this entity? Tags are compared without their weakness, as for GET. */
export function isKept(header: string | null, etag: string): boolean {
  if (!header) return false;
  if (header.trim() === '*') return true;
  const plain = (tag: string): string => tag.trim().replace(/^W\//, '');
  return header.split(/,(?=(?:[^"]*"[^"]*")*[^"]*$)/).some((tag) => plain(tag) === plain(etag));
}
