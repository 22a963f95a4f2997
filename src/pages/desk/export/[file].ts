/** The listings of the table's selection as a file: what whoever asks may edit, drafts too. */
import type { APIRoute } from 'astro';
import { isoDay } from '@/core/day/day';
import { EXPORT_FILES, exportListings } from '@/server/exchange/export';
import { notFound, refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { readTableQuery } from '@/server/desk/table';

export const GET: APIRoute = async ({ params, url, locals: { rt, actor } }) => {
  try {
    if (!actor) throw refused();
    const what = EXPORT_FILES.find((name) => name === params.file);
    if (!what) throw notFound('file');
    const { text, type } = await exportListings(rt, what, { actor, query: readTableQuery(url.searchParams) });
    const name = what.replace('.', `-${isoDay(rt.now().day)}.`);
    return new Response(text, {
      headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store' },
    });
  } catch (error) {
    return problemResponse(explain(error));
  }
};
