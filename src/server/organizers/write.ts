/** Organizers: made, changed and removed. */
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { freeAddress, webAddress } from '@/core/text/text';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { audit, organizer } from '../db/schema';
import { notFound } from '../http/problem';
import type { Actor } from '../accounts/roles';
import { replaceInContents } from '../categories/write';
import { optionalMail, optionalWeb } from '../venues/write';

export const organizerInput = z.object({
  name: z.string().trim().min(1, 'The name is missing').max(120, 'The name has at most 120 characters'),
  text: z.string().trim().max(2000, 'At most 2,000 characters').default(''),
  phone: z.string().trim().max(60, 'At most 60 characters').default(''),
  mail: optionalMail,
  website: optionalWeb,
});
export type OrganizerInput = z.infer<typeof organizerInput>;

export async function saveOrganizer(tx: Db, id: string | null, input: OrganizerInput, by: Actor): Promise<{ id: string; name: string }> {
  if (id) {
    const [row] = await tx
      .update(organizer)
      .set({ ...input, revision: sql`${organizer.revision} + 1` })
      .where(eq(organizer.id, id))
      .returning({ id: organizer.id });
    if (!row) throw notFound('organizer');
  } else {
    id = newId();
    const taken = await tx.select({ address: organizer.address }).from(organizer);
    await tx
      .insert(organizer)
      .values({ id, ...input, address: freeAddress(webAddress(input.name, 'organizer'), new Set(taken.map((r) => r.address))) });
  }
  await tx
    .insert(audit)
    .values({ id: newId(), at: new Date(), byId: by.id, byName: by.name, what: 'saved', kind: 'organizer', subjectId: id });
  return { id, name: input.name };
}

export async function removeOrganizer(tx: Db, id: string, moveTo: string | null, by: Actor): Promise<void> {
  const [row] = await tx.select().from(organizer).where(eq(organizer.id, id)).for('update');
  if (!row) throw notFound('organizer');
  await replaceInContents(tx, 'organizerIds', id, moveTo === id ? null : moveTo);
  await tx.delete(organizer).where(eq(organizer.id, id));
  await tx
    .insert(audit)
    .values({ id: newId(), at: new Date(), byId: by.id, byName: by.name, what: `removed “${row.name}”`, kind: 'organizer', subjectId: id });
}
