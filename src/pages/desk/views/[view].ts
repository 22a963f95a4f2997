/** A kept view of the table, by its own address. */
import type { APIRoute } from 'astro';
import { notFound } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { readView } from '@/server/desk/saved-views';

export const GET: APIRoute = async ({ params, redirect, locals: { rt, actor } }) => {
  try {
    const view = await readView(rt.db, params.view ?? '', actor?.id ?? null);
    if (!view) throw notFound('view');
    const query = new URLSearchParams(view.query);
    query.set('view', view.slug);
    return redirect(`/desk/listings?${query}`, 302);
  } catch (error) {
    return problemResponse(explain(error));
  }
};
