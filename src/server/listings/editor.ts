/** What the editor's island needs to begin, read for one person. */
import type { ListingContent, Stage } from '@/core/listing/content';
import type { EditorStart } from '@/core/listing/editor';
import type { Actor } from '../accounts/roles';
import { picture } from '../db/schema';
import { eq } from 'drizzle-orm';
import type { Runtime } from '../runtime';
import { lookup } from '../public/lookup';
import { styleOf } from '../site/settings';
import { horizonOf } from './date-index';
import { readHistory, readOldAddresses, readSubmissionOf } from './read';

export interface EditorListing {
  id: string | null;
  revision: number;
  stage: Stage;
  edited: boolean;
  address: string;
  content: ListingContent;
}

export async function editorStart(rt: Runtime, actor: Actor, listing: EditorListing, mark: (id: string) => string): Promise<EditorStart> {
  const found = await lookup(rt);
  const settings = rt.settings();
  const { day: today, minute } = rt.now();
  const { id, content } = listing;
  const [cover] = content.pictureId ? await rt.db.select().from(picture).where(eq(picture.id, content.pictureId)) : [];
  const sent = id ? await readSubmissionOf(rt.db, id) : undefined;
  const history = id ? await readHistory(rt.db, id) : [];
  return {
    ...listing,
    oldAddresses: id ? await readOldAddresses(rt.db, id) : [],
    picture: cover ? { id: cover.id, alt: cover.alt, credit: cover.credit, width: cover.width, height: cover.height } : null,
    venues: found.venues.map((v) => ({ id: v.id, name: v.name, more: v.town })),
    organizers: found.organizers.map((o) => ({ id: o.id, name: o.name, more: '' })),
    categories: found.categories.map((c) => ({
      id: c.id,
      name: c.name,
      more: c.parentId ? (found.category.get(c.parentId)?.name ?? '') : '',
      mark: mark(c.id),
      child: c.parentId !== null,
    })),
    fallback: found.categories.find((c) => c.fallback)?.name ?? '',
    site: {
      zone: settings.zone,
      zones: Intl.supportedValuesOf('timeZone'),
      today,
      minute,
      horizon: horizonOf(today, settings.horizonMonths),
      style: styleOf(settings),
      currency: settings.currency,
      firstWeekday: settings.firstWeekday,
    },
    mayPublish: actor.role !== 'contributor',
    mayMake: actor.role !== 'contributor',
    userId: actor.id ?? '',
    history: history.map((h) => ({ ...h, at: h.at.toISOString() })),
    submission: sent?.tokenHash ? { sender: sent.senderName, message: sent.message, where: sent.said.where, who: sent.said.who } : null,
  };
}
