/** Two venues or organizers made one: listings follow, the old address leads on, and it can be taken back as one. */
import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { listing, type MergedListing, occurrence, oldPlace, organizer, type PlaceKind, placeMerge, venue } from '../db/schema';
import { invalid, notFound, Problem } from '../http/problem';
import { moveOldAddresses, note } from './addresses';
import { putBack, replaceInContents } from './uses';

const TABLE = { venue, organizer };
const FIELD = { venue: 'venueIds', organizer: 'organizerIds' } as const;

/** What one place has and the other lacks, so that nothing that was known is lost: a phone number, a position, hours. */
function filled<T extends Record<string, unknown>>(into: T, from: T, names: readonly (keyof T & string)[]): Partial<T> {
  const empty = (value: unknown): boolean => value === null || value === '' || (Array.isArray(value) && !value.length);
  const gained: Partial<T> = {};
  for (const name of names) if (empty(into[name]) && !empty(from[name])) gained[name] = from[name];
  return gained;
}
const VENUE_FILLS = [
  'street',
  'town',
  'region',
  'postcode',
  'country',
  'island',
  'hours',
  'features',
  'access',
  'phone',
  'mail',
  'website',
  'pictureId',
  'notes',
  'capacity',
] as const;
const ORGANIZER_FILLS = [
  'text',
  'phone',
  'mail',
  'website',
  'pictureId',
  'categoryId',
  'contactName',
  'contactPhone',
  'contactMail',
  'notes',
] as const;

export interface MergeDone {
  id: string;
  /** listings that followed, each once */
  listings: number;
  from: string;
  into: string;
}

export async function mergePlaces(tx: Db, kind: PlaceKind, fromId: string, intoId: string, by: Actor, at: Date): Promise<MergeDone> {
  if (fromId === intoId) throw invalid('into', `That is the same ${kind}; choose the one that it is to become.`);
  const table = TABLE[kind];
  // Both rows are taken in the order of their ids, so that two merges at once cannot wait for each other.
  const rows = await tx
    .select()
    .from(table)
    .where(inArray(table.id, [fromId, intoId]))
    .orderBy(table.id)
    .for('update');
  const from = rows.find((row) => row.id === fromId);
  const into = rows.find((row) => row.id === intoId);
  if (!from || !into) throw notFound(kind);
  if (into.binnedAt) throw invalid('into', `“${into.name}” is in the bin; take it out first.`);
  const rooms = kind === 'venue' ? await moveRooms(tx, from as typeof venue.$inferSelect, into as typeof venue.$inferSelect) : [];
  const old = await tx
    .select({ address: oldPlace.address })
    .from(oldPlace)
    .where(and(eq(oldPlace.kind, kind), eq(oldPlace.targetId, fromId)));
  const listings = await replaceInContents(tx, FIELD[kind], fromId, intoId);
  await moveOldAddresses(tx, kind, from, intoId);
  await fill(tx, kind, from, into);
  await tx.delete(table).where(eq(table.id, fromId));
  const id = newId();
  const record = { format: 1 as const, row: { ...from }, listings, rooms, old: old.map((o) => o.address) };
  await tx.insert(placeMerge).values({ id, kind, fromId, intoId, record, byName: by.name, at });
  await note(tx, kind, intoId, `merged with “${from.name}”`, by);
  return { id, listings: new Set(listings.map((l) => l.listingId)).size, from: from.name, into: into.name };
}

async function moveRooms(tx: Db, from: typeof venue.$inferSelect, into: typeof venue.$inferSelect): Promise<string[]> {
  const rooms = await tx.select({ id: venue.id, name: venue.name }).from(venue).where(eq(venue.parentId, from.id));
  if (into.parentId === from.id) throw invalid('into', `“${into.name}” is a room of “${from.name}”; merge the room into its hall instead.`);
  if (rooms.length && into.parentId)
    throw invalid('into', `“${from.name}” has rooms and “${into.name}” is a room itself; choose a hall for them.`);
  if (rooms.length) await tx.update(venue).set({ parentId: into.id }).where(eq(venue.parentId, from.id));
  return rooms.map((room) => room.id);
}

async function fill(tx: Db, kind: PlaceKind, from: object, into: object): Promise<void> {
  if (kind === 'venue') {
    const [a, b] = [into as typeof venue.$inferSelect, from as typeof venue.$inferSelect];
    // An address is one thing: a street of the one and a town of the other would be a place that is not.
    const gained = filled(a, b, a.street || a.town ? VENUE_FILLS.slice(6) : VENUE_FILLS);
    const position = a.lat === null && b.lat !== null ? { lat: b.lat, lng: b.lng, areaOnly: b.areaOnly } : {};
    await tx
      .update(venue)
      .set({ ...gained, ...position, revision: sql`${venue.revision} + 1` })
      .where(eq(venue.id, a.id));
    return;
  }
  const [a, b] = [into as typeof organizer.$inferSelect, from as typeof organizer.$inferSelect];
  const profiles = a.profiles.list.length ? a.profiles : b.profiles;
  await tx
    .update(organizer)
    .set({ ...filled(a, b, ORGANIZER_FILLS), profiles, revision: sql`${organizer.revision} + 1` })
    .where(eq(organizer.id, a.id));
}

/** Parts two places again. What listings named since is left as it is; everything else is as before. */
export async function undoMerge(tx: Db, id: string, by: Actor, at: Date): Promise<{ name: string; listings: number; left: number }> {
  const [merge] = await tx.select().from(placeMerge).where(eq(placeMerge.id, id)).for('update');
  if (!merge) throw notFound('merge');
  if (merge.undoneAt) throw new Problem(409, 'That was taken back already.');
  const { kind, record, fromId, intoId } = merge;
  if (kind === 'tag') throw notFound('merge');
  const table = TABLE[kind];
  const row = revived(record.row) as typeof venue.$inferInsert & typeof organizer.$inferInsert;
  await tx.delete(oldPlace).where(and(eq(oldPlace.kind, kind), eq(oldPlace.address, row.address)));
  await tx.insert(table).values(row);
  if (record.old.length)
    await tx
      .update(oldPlace)
      .set({ targetId: fromId })
      .where(and(eq(oldPlace.kind, kind), inArray(oldPlace.address, record.old)));
  if (record.rooms.length)
    await tx
      .update(venue)
      .set({ parentId: fromId })
      .where(and(inArray(venue.id, record.rooms), eq(venue.parentId, intoId)));
  let [back, left] = [0, 0];
  for (const one of record.listings) {
    if (await putBack(tx, FIELD[kind], one, fromId, intoId)) {
      if (kind === 'venue' && one.dates.length) await partDates(tx, one, fromId, intoId);
      back++;
    } else left++;
  }
  await tx.update(placeMerge).set({ undoneAt: at }).where(eq(placeMerge.id, id));
  await note(tx, kind, fromId, `parted from another again`, by);
  return { name: row.name, listings: back, left };
}

/** The date index holds the published copy's dates where there is one. */
async function partDates(tx: Db, one: MergedListing, fromId: string, intoId: string): Promise<void> {
  const [row] = await tx.select({ stage: listing.stage }).from(listing).where(eq(listing.id, one.listingId));
  if ((row?.stage === 'published') !== (one.copy === 'published')) return;
  await tx
    .update(occurrence)
    .set({ venueId: fromId })
    .where(and(eq(occurrence.listingId, one.listingId), inArray(occurrence.original, one.dates), eq(occurrence.venueId, intoId)));
}

/** A row as it was kept: JSON knows no dates. */
function revived(row: Record<string, unknown>): Record<string, unknown> {
  return { ...row, binnedAt: row.binnedAt ? new Date(String(row.binnedAt)) : null };
}

export interface MergeRow {
  id: string;
  name: string;
  byName: string;
  at: Date;
}

/** What was merged into a place and can be taken back, latest first. */
export async function readMerges(db: Db, kind: PlaceKind, intoId: string): Promise<MergeRow[]> {
  const rows = await db
    .select({ id: placeMerge.id, record: placeMerge.record, byName: placeMerge.byName, at: placeMerge.at })
    .from(placeMerge)
    .where(and(eq(placeMerge.kind, kind), eq(placeMerge.intoId, intoId), isNull(placeMerge.undoneAt)));
  return rows
    .map(({ record, ...row }) => ({ ...row, name: String(record.row.name) }))
    .sort((a, b) => b.at.getTime() - a.at.getTime() || (a.id < b.id ? 1 : -1));
}
