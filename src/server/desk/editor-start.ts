/** What the editor's island needs to begin, read for one person. */
import { sayHappening, sayMoment } from '../history/happening';
import { picturesOf, venuesOf } from '@/core/listing/content';
import type { EditorStart, OrganizerChoice, VenueChoice } from '@/core/listing/editor';
import { type Actor, editsAll } from '../accounts/roles';
import { pictureChoice, readPictures } from '../pictures/read';
import type { Runtime } from '../runtime-type';
import { wholeReference, type OrganizerView, type VenueView } from '../reference/read';
import { positionOf, styleOf } from '../site/settings';
import { horizonOf } from '../dates/date-index';
import { readEdit } from '../listings/edits';
import { readHistory, readOldAddresses, readSubmissionOf } from '../listings/read';

const NO_CONTACT = { name: '', phone: '', mail: '' } as const;

/** What the editor needs of the listing itself. */
export type EditorListing = Pick<EditorStart, 'id' | 'revision' | 'stage' | 'edited' | 'times' | 'scheduleWrong' | 'slug' | 'content'>;

/** What is in the bin is still said where a listing names it. */
function named<T extends { binnedAt: Date | null }>(all: ReadonlyMap<string, T>, ids: readonly string[]): T[] {
  return ids.flatMap((id) => all.get(id) ?? []).filter((place) => place.binnedAt);
}

/** A venue as the editor offers it. */
export function venueChoice(v: VenueView): VenueChoice {
  const { id, name, capacity, hours } = v;
  const access = v.access !== '' || v.features.length > 0;
  const more = v.hall?.name ?? v.town;
  return { id, name, more, setUp: v.setUpMinutes, capacity, hours, access, placed: v.lat !== null, binned: v.binnedAt !== null };
}

/** An organizer as the editor offers it. Whom to ring stands on the organizer's own page, which editors alone open. */
export function organizerChoice(o: OrganizerView, actor: Actor): OrganizerChoice {
  const contact = editsAll(actor) ? { name: o.contactName, phone: o.contactPhone, mail: o.contactMail } : NO_CONTACT;
  return { id: o.id, name: o.name, more: '', categoryId: o.categoryId, contact, binned: o.binnedAt !== null };
}

/** Everything that the editor’s island begins with, for one person and listing. */
export async function editorStart(rt: Runtime, actor: Actor, listing: EditorListing, mark: (id: string) => string): Promise<EditorStart> {
  const reference = await wholeReference(rt);
  const settings = rt.settings();
  const { day: today, minute } = rt.now();
  const { id, content } = listing;
  const sent = id ? await readSubmissionOf(rt.db, id) : undefined;
  const kept = await readEdit(rt.db, id ?? 'new', actor.id);
  const pictures = await readPictures(rt.db, [...picturesOf(content), ...(kept ? picturesOf(kept.content) : [])]);
  const history = id ? await readHistory(rt.db, id) : [];
  return {
    ...listing,
    kept: kept ? { content: kept.content, revision: kept.revision, at: kept.changedAt.getTime() } : null,
    oldSlugs: id ? await readOldAddresses(rt.db, id) : [],
    pictures: [...pictures.values()].map(pictureChoice),
    venues: [...reference.venues, ...named(reference.venue, venuesOf(content))].map(venueChoice),
    organizers: [...reference.organizers, ...named(reference.organizer, content.organizerIds)].map((o) => organizerChoice(o, actor)),
    categories: reference.categories.map((c) => ({
      id: c.id,
      name: c.name,
      more: c.parentId ? (reference.category.get(c.parentId)?.name ?? '') : '',
      mark: mark(c.id),
      child: c.parentId !== null,
      picture: c.pictureId !== null,
    })),
    tags: reference.tags.map((t) => ({ id: t.id, name: t.name, more: '' })),
    fallback: reference.categories.find((c) => c.fallback)?.name ?? '',
    site: {
      zone: settings.zone,
      zones: Intl.supportedValuesOf('timeZone'),
      today,
      minute,
      horizon: horizonOf(today, settings.horizonMonths),
      style: styleOf(settings),
      secondLanguage: settings.secondLanguage,
      listPictures: settings.listPictures,
      currency: settings.currency,
      sunAt: positionOf(settings) ?? null,
      firstWeekday: settings.firstWeekday,
    },
    mayPublish: actor.role !== 'contributor',
    mayMake: actor.role !== 'contributor',
    userId: actor.id ?? '',
    history: history.map((h) => ({
      ...h,
      what: sayHappening(h.what, styleOf(settings), settings.zone),
      at: sayMoment(h.at, styleOf(settings), settings.zone),
    })),
    submission: sent?.tokenHash ? { sender: sent.senderName, message: sent.message, where: sent.said.where, who: sent.said.who } : null,
  };
}
