/** Venues: made, changed, binned and removed. What uses one is never left pointing at nothing. */
import { eq, sql } from 'drizzle-orm';
import { whyNoRoom } from '@/core/venue/rooms';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { picture, venue } from '../db/schema';
import { invalid, notFound, Problem } from '../problem';
import { freePlaceSlug, note } from '../places/slugs';
import type { Change } from '../listings/write';
import { type Gone, takeOut } from '../places/removed';
import { validateAgain } from '../validation/due';
import type { VenueInput } from './input';
import { serverWords } from '@/words/desk';

const w = serverWords.venuesWrite;

/** Refuses what cannot be: a hall of itself, a room of a room, a picture that is gone. */
async function check(tx: Db, id: string | null, { parentId, pictureId }: VenueInput): Promise<void> {
  if (parentId) {
    const all = await tx.select({ id: venue.id, name: venue.name, parentId: venue.parentId }).from(venue);
    const why = whyNoRoom(id, parentId, all);
    if (why) throw invalid('parentId', why);
  }
  if (pictureId) {
    const [there] = await tx.select({ id: picture.id }).from(picture).where(eq(picture.id, pictureId));
    if (!there) throw invalid('pictureId', w.thatPictureIsGone());
  }
}

/** Makes a venue, or changes it. Throws a Problem at the field that is wrong. */
export async function saveVenue(tx: Db, id: string | null, input: VenueInput, by: Actor): Promise<{ id: string; name: string }> {
  await check(tx, id, input);
  if (id) {
    const [row] = await tx
      .update(venue)
      .set({ ...input, revision: sql`${venue.revision} + 1` })
      .where(eq(venue.id, id))
      .returning({ id: venue.id });
    if (!row) throw notFound('venue');
  } else {
    id = newId();
    await tx.insert(venue).values({ id, ...input, slug: await freePlaceSlug(tx, 'venue', input.name) });
  }
  await validateAgain(tx, 'venueId', id);
  await note(tx, 'venue', id, { code: 'saved' }, by);
  return { id, name: input.name };
}

/** Out of sight: not offered, no page of its own. Listings that name it keep it, and Proof says so. `at` null takes it back. */
export async function binVenue(tx: Db, id: string, at: Date | null, by: Actor): Promise<{ name: string }> {
  const [row] = await tx.update(venue).set({ binnedAt: at }).where(eq(venue.id, id)).returning({ name: venue.name });
  if (!row) throw notFound('venue');
  await validateAgain(tx, 'venueId', id);
  await note(tx, 'venue', id, { code: at ? 'binned' : 'outOfBin' }, by);
  return row;
}

/** Removes a venue; listings go to `moveTo`, or have no venue when that is null. It is brought back as one for as long as the bin keeps. */
export async function removeVenue(tx: Db, id: string, moveTo: string | null, change: Change): Promise<Gone> {
  const [row] = await tx.select().from(venue).where(eq(venue.id, id)).for('update');
  if (!row) throw notFound('venue');
  const [room] = await tx.select({ name: venue.name }).from(venue).where(eq(venue.parentId, id)).limit(1);
  if (room) throw new Problem('conflict', w.isARoomOf({ name: room.name }));
  const [to] = moveTo && moveTo !== id ? await tx.select({ id: venue.id, name: venue.name }).from(venue).where(eq(venue.id, moveTo)) : [];
  if (moveTo && !to) throw invalid('moveTo', w.chooseAnotherVenueOr());
  return takeOut(tx, { kind: 'venue', row, to: to ?? null, merged: false }, change);
}
