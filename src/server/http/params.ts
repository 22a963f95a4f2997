/** Parts of an address, checked. */
import { isId } from '../db/ids';
import { notFound } from './problem';

/** An id from the address; anything that is none names nothing. */
export function idOf(text: string | undefined, what: string): string {
  if (!text || !isId(text)) throw notFound(what);
  return text;
}

/** The same choice from its first page: where somebody goes whose page emptied meanwhile. */
export function firstPage(url: URL): string {
  const params = new URLSearchParams(url.searchParams);
  params.delete('page');
  return params.size ? `${url.pathname}?${params}` : url.pathname;
}
