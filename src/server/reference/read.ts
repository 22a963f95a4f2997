/** The small tables that every page needs (categories, venues), read once for each state of the content. */
import { asc } from 'drizzle-orm';
import { inksOf, tint } from '@/core/colour/colour';
import type { Shape } from '@/core/colour/mark';
import { fold } from '@/core/text/text';
import { ORGANIZER_FACTS, type ShownFacts, shownOrganizer, shownVenue, VENUE_FACTS } from '@/core/venue/shown-facts';
import type { Db } from '../db/client';
import type { ContentCache } from '../site/content-cache';
import { category, organizer, tag, venue } from '../db/schema';
import { type OrganizerView, organizerView, type VenueView, venueViews } from '../places/view';

/** The names of what a listing names, in its order; what was removed since is left out. */
export const namesOf = (ids: readonly string[], of: ReadonlyMap<string, { name: string }>, between = ', '): string =>
  ids.flatMap((id) => of.get(id)?.name ?? []).join(between);

/** A category as pages show it, with its inks. */
export interface CategoryView {
  id: string;
  name: string;
  slug: string;
  shape: Shape;
  ink: string;
  text: string;
  icon: string;
  pictureId: string | null;
  light: string;
  dark: string;
  parentId: string | null;
  tinted: boolean;
  fallback: boolean;
  revision: number;
}
export type { OrganizerView, VenueView } from '../places/view';

/** A tag as pages show it. */
export interface TagView {
  id: string;
  name: string;
  slug: string;
}

/** Categories, venues, organizers and tags, in order and by id. */
export interface ReferenceData {
  /** parents in order, each followed by its children */
  categories: CategoryView[];
  category: Map<string, CategoryView>;
  /** those that are not in the bin */
  venues: VenueView[];
  /** all of them, by id */
  venue: Map<string, VenueView>;
  organizers: OrganizerView[];
  organizer: Map<string, OrganizerView>;
  tags: TagView[];
  tag: Map<string, TagView>;
  /** towns that venues lie in, sorted */
  towns: string[];
}

/** What reference data is read from: a database, what is known of its content, and what the site lets readers see of venues and organizers. */
export interface ContentSource {
  db: Db;
  cache: ContentCache;
  settings: () => ShownFacts;
}

/**
 * Categories, venues, organizers and tags as they are now, with all that is known of them, for Proof and for what editors take out; read once for
 * each state of what readers may see, which they are part of.
 */
export function wholeReference(rt: Pick<ContentSource, 'db' | 'cache'>): Promise<ReferenceData> {
  return rt.cache.ofReaders().of('reference data', () => readAll(rt.db));
}

/** The same with what the site shows of venues and organizers. */
export function referenceData(rt: ContentSource): Promise<ReferenceData> {
  const { venueShows, organizerShows } = rt.settings();
  if (venueShows.length === VENUE_FACTS.length && organizerShows.length === ORGANIZER_FACTS.length) return wholeReference(rt);
  const key = `reference-data:${venueShows.join()}:${organizerShows.join()}`;
  return rt.cache.ofReaders().of(key, async () => asShown(await wholeReference(rt), { venueShows, organizerShows }));
}

function asShown(whole: ReferenceData, { venueShows, organizerShows }: ShownFacts): ReferenceData {
  const venue = new Map([...whole.venue].map(([id, one]) => [id, shownVenue(one, venueShows)]));
  const organizer = new Map([...whole.organizer].map(([id, one]) => [id, shownOrganizer(one, organizerShows)]));
  return {
    ...whole,
    venue,
    venues: [...venue.values()].filter((one) => !one.binnedAt),
    organizer,
    organizers: [...organizer.values()].filter((one) => !one.binnedAt),
  };
}

type CategoryRow = typeof category.$inferSelect;

/** A child that is tinted shows its parent's ink, each child a little differently. */
function shownInk(row: CategoryRow, all: readonly CategoryRow[]): string {
  const parent = row.tinted && row.parentId ? all.find((other) => other.id === row.parentId) : undefined;
  if (!parent) return row.ink;
  const siblings = all.filter((other) => other.parentId === parent.id);
  return tint(parent.ink, siblings.indexOf(row));
}

async function readAll(db: Db): Promise<ReferenceData> {
  const rows = await db.select().from(category).orderBy(asc(category.position), asc(category.name));
  const venues = venueViews(await db.select().from(venue).orderBy(asc(venue.name), asc(venue.id)));
  const organizers = (await db.select().from(organizer).orderBy(asc(organizer.name), asc(organizer.id))).map(organizerView);
  const tags = await db.select({ id: tag.id, name: tag.name, slug: tag.slug }).from(tag).orderBy(asc(tag.folded));
  const views = rows.map((row): CategoryView => {
    const ink = shownInk(row, rows);
    return { ...row, ink, ...inksOf(ink) };
  });
  const categories = views.filter((c) => !c.parentId).flatMap((parent) => [parent, ...views.filter((c) => c.parentId === parent.id)]);
  return {
    categories,
    category: new Map(categories.map((c) => [c.id, c])),
    venues: venues.filter((v) => !v.binnedAt),
    venue: new Map(venues.map((v) => [v.id, v])),
    organizers: organizers.filter((o) => !o.binnedAt),
    organizer: new Map(organizers.map((o) => [o.id, o])),
    tags,
    tag: new Map(tags.map((t) => [t.id, t])),
    towns: [...new Set(venues.flatMap((v) => (v.town && !v.binnedAt ? [v.town] : [])))].sort((a, b) => (fold(a) < fold(b) ? -1 : 1)),
  };
}

/** The chosen category with those under it. */
export function withChildren(reference: ReferenceData, slug: string): CategoryView[] {
  const chosen = reference.categories.find((c) => c.slug === slug);
  return chosen ? [chosen, ...reference.categories.filter((c) => c.parentId === chosen.id)] : [];
}

/** The category at the top of a category's branch. */
export function topOf(reference: ReferenceData, id: string): CategoryView | undefined {
  const own = reference.category.get(id);
  return own?.parentId ? reference.category.get(own.parentId) : own;
}
