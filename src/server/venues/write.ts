/** Venues: made, changed and removed. What uses one is never left pointing at nothing. */
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { isMail, isWebAddress } from '@/core/proof/proof';
import { freeAddress, webAddress } from '@/core/text/text';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { audit, published, venue } from '../db/schema';
import { notFound } from '../http/problem';
import type { Actor } from '../accounts/roles';
import { replaceInContents } from '../categories/write';

const words = (most: number) => z.string().trim().max(most, `At most ${most} characters`).default('');
export const optionalWeb = words(500).refine((text) => !text || isWebAddress(text), { error: 'A website begins with http:// or https://' });
export const optionalMail = words(200).refine((text) => !text || isMail(text), { error: 'A mail address needs a name, an @ and a domain' });
const degrees = (most: number, what: string) =>
  z.preprocess(
    (value) => (value === '' || value === undefined || value === null ? null : Number(value)),
    z
      .number({ error: `${what} is a number such as 43.12` })
      .min(-most, `${what} is at least −${most}`)
      .max(most, `${what} is at most ${most}`)
      .nullable(),
  );

export const venueInput = z
  .object({
    name: z.string().trim().min(1, 'The name is missing').max(120, 'The name has at most 120 characters'),
    street: words(200),
    town: words(80),
    island: words(80),
    lat: degrees(90, 'A latitude'),
    lng: degrees(180, 'A longitude'),
    access: words(600),
    phone: words(60),
    mail: optionalMail,
    website: optionalWeb,
  })
  .refine((v) => (v.lat === null) === (v.lng === null), { error: 'Give both latitude and longitude, or neither', path: ['lat'] });
export type VenueInput = z.infer<typeof venueInput>;

export async function saveVenue(tx: Db, id: string | null, input: VenueInput, by: Actor): Promise<{ id: string; name: string }> {
  if (id) {
    const [row] = await tx
      .update(venue)
      .set({ ...input, revision: sql`${venue.revision} + 1` })
      .where(eq(venue.id, id))
      .returning({ id: venue.id });
    if (!row) throw notFound('venue');
  } else {
    id = newId();
    const taken = await tx.select({ address: venue.address }).from(venue);
    await tx
      .insert(venue)
      .values({ id, ...input, address: freeAddress(webAddress(input.name, 'venue'), new Set(taken.map((r) => r.address))) });
  }
  await tx.insert(audit).values({ id: newId(), at: new Date(), byId: by.id, byName: by.name, what: 'saved', kind: 'venue', subjectId: id });
  return { id, name: input.name };
}

/** Removes a venue; listings go to `moveTo`, or have no venue when that is null. */
export async function removeVenue(tx: Db, id: string, moveTo: string | null, by: Actor): Promise<void> {
  const [row] = await tx.select().from(venue).where(eq(venue.id, id)).for('update');
  if (!row) throw notFound('venue');
  const target = moveTo === id ? null : moveTo;
  await replaceInContents(tx, 'venueIds', id, target);
  await tx.update(published).set({ venueId: target }).where(eq(published.venueId, id));
  await tx.delete(venue).where(eq(venue.id, id));
  await tx
    .insert(audit)
    .values({ id: newId(), at: new Date(), byId: by.id, byName: by.name, what: `removed “${row.name}”`, kind: 'venue', subjectId: id });
}
