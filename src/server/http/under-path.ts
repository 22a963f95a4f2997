/** Answers of a site that lies below a path of its host: pages are made as at its root, and their addresses led below the path when they go out. */
import { rewriteHtml } from '@/core/plain-files/rewrite-html';
import { rewriteJson } from '@/core/plain-files/rewrite-text';
import type { SitePath } from '@/core/text/site-path';

const isOwn = (address: string): boolean => /^\/(?![/\\])/.test(address);

/** An answer whose body leads below a path: pages and the site's manifest; what else there is names whole addresses. Nothing changes for a site at its host's root. */
export async function bodyUnder(path: SitePath, response: Response): Promise<Response> {
  const type = response.headers.get('content-type') ?? '';
  const page = type.startsWith('text/html');
  if (!path || !response.body || !(page || type.startsWith('application/manifest+json'))) return response;
  const link = (address: string): string => path + address;
  const body = await response.text();
  const rewritten = page ? rewriteHtml(body, { sites: [], link, form: link, whole: () => undefined }) : rewriteJson(body, link);
  const headers = new Headers(response.headers);
  headers.delete('content-length');
  return new Response(rewritten, { status: response.status, statusText: response.statusText, headers });
}

/** Leads where an answer sends its reader below a path, and keeps its cookies there: other sites of the host get none of them. */
export function headersUnder(path: SitePath, headers: Headers): void {
  if (!path) return;
  const location = headers.get('location');
  if (location && isOwn(location)) headers.set('location', path + location);
  const cookies = headers.getSetCookie();
  headers.delete('set-cookie');
  for (const cookie of cookies)
    headers.append(
      'set-cookie',
      cookie.replace(/;\s*path=\/([^;]*)/i, (_, rest: string) => `; Path=${path}${rest && `/${rest}`}`),
    );
}
