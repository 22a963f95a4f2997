/** Two venues or organizers made one: listings follow, the old address leads on, and it can be taken back as one. */
import { eq, inArray, sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { organizer, type PlaceKind, venue } from '../db/schema';
import { invalid, notFound } from '../problem';
import type { Change } from '../listings/write';
import { takeOut } from './removed';
import { serverWords } from '@/words/desk';

const w = serverWords.placesMerge;

const TABLE = { venue, organizer };

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

/** What a merge changed, for undoing it. */
export interface MergeDone {
  id: string;
  /** listings that followed, each once */
  listings: number;
  from: string;
  into: string;
}

/** Makes one place of two: what named the first names the second, and its slug leads there. Throws a Problem where they cannot be one. */
export async function mergePlaces(tx: Db, kind: PlaceKind, fromId: string, intoId: string, change: Change): Promise<MergeDone> {
  if (fromId === intoId) throw invalid('into', w.thatIsTheSame({ kind }));
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
  if (into.binnedAt) throw invalid('into', w.isInTheBin({ name: into.name }));
  const rooms = kind === 'venue' ? await moveRooms(tx, from as typeof venue.$inferSelect, into as typeof venue.$inferSelect) : [];
  const gone = await takeOut(tx, { kind, row: from, to: into, pointed: rooms, merged: true }, change);
  await fill(tx, kind, from, into);
  return { id: gone.command, listings: gone.listings, from: from.name, into: into.name };
}

async function moveRooms(tx: Db, from: typeof venue.$inferSelect, into: typeof venue.$inferSelect): Promise<string[]> {
  const rooms = await tx.select({ id: venue.id, name: venue.name }).from(venue).where(eq(venue.parentId, from.id));
  if (into.parentId === from.id) throw invalid('into', w.isARoomOf({ room: into.name, hall: from.name }));
  if (rooms.length && into.parentId) throw invalid('into', w.hasRoomsAndIs({ hall: from.name, room: into.name }));
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
