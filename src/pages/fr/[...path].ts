/** Readers' pages in French: the same pages, asked for under `/fr`. Everything else, and all of it where the site has no French, is not there. */
import type { APIRoute } from 'astro';
import { isViewName } from '@/core/views/views';

/** What readers meet; the Desk and the interface for programs are in one language. */
const READERS =
  /^\/(|go|what\/.*|at(\/.*)?|by(\/.*)?|tags|data|site\.webmanifest|add|receipt\/.*|subscribe|feed\.(ics|rss|atom|json)|dates\.(geojson|csv))$/;

const isView = (path: string): boolean => isViewName(path.split('/')[1] ?? '');

export const ALL: APIRoute = ({ locals, url, request, params, rewrite }) => {
  const path = `/${params.path ?? ''}`;
  const there = locals.language === 'fr' && (READERS.test(path) || isView(path));
  return rewrite(there ? new Request(new URL(path + url.search, url), request) : '/404');
};
