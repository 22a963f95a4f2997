/** Addresses of pages. */

/** The same choice from its first page: where somebody goes whose page emptied meanwhile. */
export function firstPage(url: URL): string {
  const params = new URLSearchParams(url.searchParams);
  params.delete('page');
  return params.size ? `${url.pathname}?${params}` : url.pathname;
}
