/** Brings back what was merged or removed, from wherever that was done, and goes back there. */
import type { APIRoute } from 'astro';
import { tryForm } from '@/server/http/endpoint';
import { saying } from '@/server/http/page-form';
import { idOf, refused } from '@/server/problem';
import { readFields } from '@/server/http/form-body';
import { bringBack } from '@/server/places/removed';
import { pagesWords } from '@/words/desk';

const w = pagesWords.undo;

/** Pages that this leads back to: the Desk's own, never another site's. */
const OWN = /^\/desk\/(venues|organizers|categories|tags)(\/[0-9a-f-]{36})?$/;

export const POST: APIRoute = async ({ request, locals, redirect }) => {
  const { rt, actor, now, settings } = locals;
  if (!actor) throw refused();
  const { command, back = '' } = await readFields(request);
  const { value, problem } = await tryForm(() =>
    rt.db.transaction((tx) => bringBack(tx, idOf(command, 'removal'), { by: actor, now, settings })),
  );
  const lists = { venue: '/desk/venues', organizer: '/desk/organizers', category: '/desk/categories', tag: '/desk/tags' };
  const to = OWN.test(back) ? back : lists[value?.kind ?? 'venue'];
  if (problem) return redirect(saying(locals, to, problem.title), 303);
  return redirect(saying(locals, to, w.isBack({ name: value.name, listings: value.listings, left: value.left })), 303);
};
