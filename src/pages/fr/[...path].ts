/** Readers' pages in French: the same pages, asked for under `/fr`. Everything else, and all of it where the site has no French, is not there. */
import type { APIRoute } from 'astro';
import { readerOf } from '@/components/reader';
import { styleOf } from '@/server/site/settings';

/** What readers meet; the Desk and the interface for programs are in one language. */
const READERS = /^\/(|month\/.*|list(\/.*)?|day\/.*|map(\/.*)?|go|what\/.*|at\/.*|by\/.*|add|receipt\/.*|subscribe|feed\.ics)$/;

export const ALL: APIRoute = (context) => {
  const { locals, url, request, params } = context;
  const path = `/${params.path ?? ''}`;
  if (locals.settings.secondLanguage !== 'fr') return context.rewrite('/404');
  locals.language = 'fr';
  locals.reader = readerOf('fr');
  locals.style = styleOf(locals.settings, 'fr');
  return context.rewrite(READERS.test(path) ? new Request(new URL(path + url.search, url), request) : '/404');
};
